using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace RuddySpring.Store.Migrations
{
    /// <summary>The flow that a plan holds is what the scale shows, g/s; it was called ml/s.</summary>
    public partial class HeldFlowInGrams : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder) => Rename(migrationBuilder, "flowMlPerS", "flowGramsPerS", " ml/s", " g/s");

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) => Rename(migrationBuilder, "flowGramsPerS", "flowMlPerS", " g/s", " ml/s");

        private static void Rename(MigrationBuilder migrationBuilder, string field, string newField, string unit, string newUnit)
        {
            foreach (var table in (string[])["Plans", "Traces"])
            {
                migrationBuilder.Sql(
                    $"UPDATE {table} SET Plan = replace(replace(Plan, '\"{field}\"', '\"{newField}\"'), '{unit}', '{newUnit}') WHERE Plan LIKE '%{field}%'");
            }
        }
    }
}
