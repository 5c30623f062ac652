using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace RuddySpring.Store.Migrations
{
    /// <inheritdoc />
    public partial class LedgerOrder : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<double>(
                name: "CupGramsToOrderBy",
                table: "Shots",
                type: "REAL",
                nullable: true,
                computedColumnSql: "CASE WHEN json_valid(Measures) THEN CAST(json_extract(Measures, '$.cupGrams') AS REAL) END",
                stored: false);

            migrationBuilder.AddColumn<double>(
                name: "R10ToOrderBy",
                table: "Shots",
                type: "REAL",
                nullable: true,
                computedColumnSql: "CASE WHEN json_valid(Measures) THEN CAST(json_extract(Measures, '$.r10') AS REAL) END",
                stored: false);

            migrationBuilder.AddColumn<double>(
                name: "SecondsToOrderBy",
                table: "Shots",
                type: "REAL",
                nullable: true,
                computedColumnSql: "CASE WHEN json_valid(Measures) THEN CAST(json_extract(Measures, '$.secondsFromPressure') AS REAL) END",
                stored: false);

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

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
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

            migrationBuilder.DropColumn(
                name: "CupGramsToOrderBy",
                table: "Shots");

            migrationBuilder.DropColumn(
                name: "R10ToOrderBy",
                table: "Shots");

            migrationBuilder.DropColumn(
                name: "SecondsToOrderBy",
                table: "Shots");
        }
    }
}
