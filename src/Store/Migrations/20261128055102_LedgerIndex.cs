using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace RuddySpring.Store.Migrations
{
    /// <inheritdoc />
    public partial class LedgerIndex : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Shots_Ledger",
                table: "Shots");
            // whatever a shot can be filtered by: what does not fit is passed over within the index
            migrationBuilder.Sql(
                """
                CREATE INDEX "IX_Shots_Ledger" ON "Shots" (
                    "DeletedAt", "PulledAt", "Id", "MachineId", "BagId", "BrewerId", "Liking", "GrinderId", "BasketId",
                    "Taste_Sour", "Taste_Bitter", "Taste_Dry", "Taste_Sweet", "Taste_Body", "GroupC", "WaterC", "R10ToOrderBy"
                );
                """);

            migrationBuilder.CreateIndex(
                name: "IX_Shots_Bag",
                table: "Shots",
                columns: new[] { "BagId", "DeletedAt", "PulledAt" });

            migrationBuilder.CreateIndex(
                name: "IX_Shots_Grinder",
                table: "Shots",
                columns: new[] { "GrinderId", "DeletedAt", "PulledAt" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Shots_Bag",
                table: "Shots");

            migrationBuilder.DropIndex(
                name: "IX_Shots_Grinder",
                table: "Shots");

            migrationBuilder.DropIndex(
                name: "IX_Shots_Ledger",
                table: "Shots");
            migrationBuilder.CreateIndex(
                name: "IX_Shots_Ledger",
                table: "Shots",
                columns: new[] { "DeletedAt", "PulledAt", "Id", "MachineId", "BagId", "BrewerId", "Liking" });
        }
    }
}
