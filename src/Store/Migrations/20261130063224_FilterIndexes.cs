using System.Linq;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace RuddySpring.Store.Migrations
{
    /// <inheritdoc />
    public partial class FilterIndexes : Migration
    {
        private static readonly string[] Tastes = ["Taste_Sour", "Taste_Bitter", "Taste_Dry", "Taste_Sweet", "Taste_Body"];

        // what is looked up by one of these passes over what does not fit within the index, in the ledger's order
        private static readonly (string Name, string First)[] LookedUp =
        [
            ("Bag", "\"BagId\", \"DeletedAt\""),
            ("Grinder", "\"GrinderId\", \"DeletedAt\""),
            ("PlanName", "\"DeletedAt\", \"PlanName\""),
        ];

        private static string Filters(params string[] already) =>
            string.Join(
                ", ",
                Tastes
                    .Concat(["Liking", "MachineId", "BagId", "BrewerId", "GrinderId", "BasketId", "GroupC", "WaterC", "R10ToOrderBy"])
                    .Except(already)
                    .Select(column => $"\"{column}\""));

        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            // few shots taste so strongly of anything: they are found without going through all others
            foreach (var taste in Tastes)
                migrationBuilder.Sql(
                    $"CREATE INDEX \"IX_Shots_{taste}\" ON \"Shots\" "
                    + $"(\"DeletedAt\", \"PulledAt\", \"Id\", \"{taste}\", {Filters(taste)}) WHERE \"{taste}\" >= 3;");
            foreach (var (name, first) in LookedUp)
            {
                migrationBuilder.DropIndex(name: $"IX_Shots_{name}", table: "Shots");
                migrationBuilder.Sql(
                    $"CREATE INDEX \"IX_Shots_{name}\" ON \"Shots\" ({first}, \"PulledAt\", \"Id\", {Filters($"{name}Id")});");
            }
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            foreach (var taste in Tastes)
                migrationBuilder.DropIndex(name: $"IX_Shots_{taste}", table: "Shots");
            foreach (var (name, first) in LookedUp)
            {
                migrationBuilder.DropIndex(name: $"IX_Shots_{name}", table: "Shots");
                var more = name == "PlanName" ? ", \"Id\", \"MachineId\"" : "";
                migrationBuilder.Sql($"CREATE INDEX \"IX_Shots_{name}\" ON \"Shots\" ({first}, \"PulledAt\"{more});");
            }
        }
    }
}
