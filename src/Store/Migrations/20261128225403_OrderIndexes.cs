using System.Linq;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace RuddySpring.Store.Migrations
{
    /// <inheritdoc />
    public partial class OrderIndexes : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Shots_CupGramsToOrderBy",
                table: "Shots");

            migrationBuilder.DropIndex(
                name: "IX_Shots_DoseGrams",
                table: "Shots");

            migrationBuilder.DropIndex(
                name: "IX_Shots_GrindSetting",
                table: "Shots");

            migrationBuilder.DropIndex(
                name: "IX_Shots_Liking",
                table: "Shots");

            migrationBuilder.DropIndex(
                name: "IX_Shots_R10ToOrderBy",
                table: "Shots");

            migrationBuilder.DropIndex(
                name: "IX_Shots_SecondsToOrderBy",
                table: "Shots");
            foreach (var order in Orders)
                migrationBuilder.Sql($"CREATE INDEX \"IX_Shots_{order}\" ON \"Shots\" (\"DeletedAt\", \"{order}\", \"Id\", {Filters(order)});");
        }

        private static readonly string[] Orders =
            ["CupGramsToOrderBy", "DoseGrams", "GrindSetting", "Liking", "R10ToOrderBy", "SecondsToOrderBy"];

        // those that a taste is looked for by come first, as in IX_Shots_Ledger
        private static string Filters(string order) =>
            string.Join(
                ", ",
                new[]
                {
                    "Taste_Sour", "Taste_Bitter", "Taste_Dry", "Taste_Sweet", "Taste_Body", "Liking", "MachineId", "BagId", "BrewerId",
                    "GrinderId", "BasketId", "GroupC", "WaterC", "R10ToOrderBy", "PulledAt",
                }.Where(column => column != order).Select(column => $"\"{column}\""));

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            foreach (var order in Orders)
                migrationBuilder.DropIndex(name: $"IX_Shots_{order}", table: "Shots");
            migrationBuilder.CreateIndex(
                name: "IX_Shots_CupGramsToOrderBy",
                table: "Shots",
                columns: new[] { "DeletedAt", "CupGramsToOrderBy", "Id", "MachineId", "BagId", "BrewerId" });

            migrationBuilder.CreateIndex(
                name: "IX_Shots_DoseGrams",
                table: "Shots",
                columns: new[] { "DeletedAt", "DoseGrams", "Id", "MachineId", "BagId", "BrewerId" });

            migrationBuilder.CreateIndex(
                name: "IX_Shots_GrindSetting",
                table: "Shots",
                columns: new[] { "DeletedAt", "GrindSetting", "Id", "MachineId", "BagId", "BrewerId" });

            migrationBuilder.CreateIndex(
                name: "IX_Shots_Liking",
                table: "Shots",
                columns: new[] { "DeletedAt", "Liking", "Id", "MachineId", "BagId", "BrewerId" });

            migrationBuilder.CreateIndex(
                name: "IX_Shots_R10ToOrderBy",
                table: "Shots",
                columns: new[] { "DeletedAt", "R10ToOrderBy", "Id", "MachineId", "BagId", "BrewerId" });

            migrationBuilder.CreateIndex(
                name: "IX_Shots_SecondsToOrderBy",
                table: "Shots",
                columns: new[] { "DeletedAt", "SecondsToOrderBy", "Id", "MachineId", "BagId", "BrewerId" });
        }
    }
}
