using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace RuddySpring.Store.Migrations
{
    /// <inheritdoc />
    public partial class LedgerAndExchange : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Clock",
                table: "Traces",
                type: "TEXT",
                nullable: false,
                defaultValue: "Lever");

            migrationBuilder.AddColumn<string>(
                name: "Cause",
                table: "Shots",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "ForceUnit",
                table: "Brewers",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "PressureUnit",
                table: "Brewers",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "School",
                table: "Brewers",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "TemperatureUnit",
                table: "Brewers",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "BrewerId",
                table: "Bags",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "ImportSources",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Fingerprint = table.Column<string>(type: "TEXT", nullable: false),
                    Answers = table.Column<string>(type: "TEXT", nullable: false),
                    UsedAt = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ImportSources", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Photos",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    ShotId = table.Column<int>(type: "INTEGER", nullable: false),
                    AddedAt = table.Column<long>(type: "INTEGER", nullable: false),
                    Width = table.Column<int>(type: "INTEGER", nullable: false),
                    Height = table.Column<int>(type: "INTEGER", nullable: false),
                    Jpeg = table.Column<byte[]>(type: "BLOB", nullable: false),
                    Small = table.Column<byte[]>(type: "BLOB", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Photos", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Photos_Shots_ShotId",
                        column: x => x.ShotId,
                        principalTable: "Shots",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Views",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Query = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Views", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Shots_Cause",
                table: "Shots",
                column: "Cause",
                filter: "Cause IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_Shots_PlanName",
                table: "Shots",
                columns: new[] { "DeletedAt", "PlanName", "PulledAt", "Id", "MachineId" });

            migrationBuilder.CreateIndex(
                name: "IX_ImportSources_Fingerprint",
                table: "ImportSources",
                column: "Fingerprint",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Photos_ShotId",
                table: "Photos",
                column: "ShotId");

            migrationBuilder.CreateIndex(
                name: "IX_Views_Name",
                table: "Views",
                column: "Name",
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "ImportSources");

            migrationBuilder.DropTable(
                name: "Photos");

            migrationBuilder.DropTable(
                name: "Views");

            migrationBuilder.DropIndex(
                name: "IX_Shots_Cause",
                table: "Shots");

            migrationBuilder.DropIndex(
                name: "IX_Shots_PlanName",
                table: "Shots");

            migrationBuilder.DropColumn(
                name: "Clock",
                table: "Traces");

            migrationBuilder.DropColumn(
                name: "Cause",
                table: "Shots");

            migrationBuilder.DropColumn(
                name: "ForceUnit",
                table: "Brewers");

            migrationBuilder.DropColumn(
                name: "PressureUnit",
                table: "Brewers");

            migrationBuilder.DropColumn(
                name: "School",
                table: "Brewers");

            migrationBuilder.DropColumn(
                name: "TemperatureUnit",
                table: "Brewers");

            migrationBuilder.DropColumn(
                name: "BrewerId",
                table: "Bags");
        }
    }
}
