using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace RuddySpring.Store.Migrations
{
    /// <inheritdoc />
    public partial class TastesFirst : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            // a taste has no index of its own to be looked up in, as machine, bag and liking have: all shots are gone through,
            // and a column that comes early in the index is read sooner
            migrationBuilder.DropIndex(
                name: "IX_Shots_Ledger",
                table: "Shots");
            migrationBuilder.Sql(
                """
                CREATE INDEX "IX_Shots_Ledger" ON "Shots" (
                    "DeletedAt", "PulledAt", "Id", "Taste_Sour", "Taste_Bitter", "Taste_Dry", "Taste_Sweet", "Taste_Body",
                    "Liking", "MachineId", "BagId", "BrewerId", "GrinderId", "BasketId", "GroupC", "WaterC", "R10ToOrderBy"
                );
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Shots_Ledger",
                table: "Shots");
            migrationBuilder.Sql(
                """
                CREATE INDEX "IX_Shots_Ledger" ON "Shots" (
                    "DeletedAt", "PulledAt", "Id", "MachineId", "BagId", "BrewerId", "Liking", "GrinderId", "BasketId",
                    "Taste_Sour", "Taste_Bitter", "Taste_Dry", "Taste_Sweet", "Taste_Body", "GroupC", "WaterC", "R10ToOrderBy"
                );
                """);
        }
    }
}
