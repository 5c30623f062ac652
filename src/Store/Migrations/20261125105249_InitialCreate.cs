using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace RuddySpring.Store.Migrations
{
    /// <inheritdoc />
    public partial class InitialCreate : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "Bags",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Roaster = table.Column<string>(type: "TEXT", nullable: false),
                    RoastedOn = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    RoastLevel = table.Column<string>(type: "TEXT", nullable: false),
                    Finished = table.Column<bool>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Bags", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Brewers",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Name = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Brewers", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Grinders",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    ScaleUnit = table.Column<string>(type: "TEXT", nullable: false),
                    Step = table.Column<double>(type: "REAL", nullable: false),
                    FinerIsLower = table.Column<bool>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Grinders", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Households",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    AltitudeMetres = table.Column<double>(type: "REAL", nullable: false),
                    AmbientC = table.Column<double>(type: "REAL", nullable: false),
                    MadeUp = table.Column<bool>(type: "INTEGER", nullable: false),
                    PressureUnit = table.Column<string>(type: "TEXT", nullable: false),
                    TemperatureUnit = table.Column<string>(type: "TEXT", nullable: false),
                    ForceUnit = table.Column<string>(type: "TEXT", nullable: false),
                    SheetJson = table.Column<string>(type: "TEXT", nullable: true),
                    WarmJson = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Households", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Machines",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Spec = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Machines", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Shots",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    PulledAt = table.Column<long>(type: "INTEGER", nullable: false),
                    Source = table.Column<string>(type: "TEXT", nullable: false),
                    BrewerId = table.Column<int>(type: "INTEGER", nullable: true),
                    MachineId = table.Column<int>(type: "INTEGER", nullable: false),
                    BagId = table.Column<int>(type: "INTEGER", nullable: true),
                    GrinderId = table.Column<int>(type: "INTEGER", nullable: true),
                    GrindSetting = table.Column<double>(type: "REAL", nullable: true),
                    DoseGrams = table.Column<double>(type: "REAL", nullable: false),
                    YieldGrams = table.Column<double>(type: "REAL", nullable: false),
                    WaterC = table.Column<double>(type: "REAL", nullable: true),
                    PlanName = table.Column<string>(type: "TEXT", nullable: false),
                    Measures = table.Column<string>(type: "TEXT", nullable: false),
                    SmallPressure = table.Column<byte[]>(type: "BLOB", nullable: false),
                    SmallWeight = table.Column<byte[]>(type: "BLOB", nullable: false),
                    Taste_Sour = table.Column<int>(type: "INTEGER", nullable: true),
                    Taste_Bitter = table.Column<int>(type: "INTEGER", nullable: true),
                    Taste_Dry = table.Column<int>(type: "INTEGER", nullable: true),
                    Taste_Sweet = table.Column<int>(type: "INTEGER", nullable: true),
                    Taste_Body = table.Column<int>(type: "INTEGER", nullable: true),
                    Taste_Words = table.Column<string>(type: "TEXT", nullable: false),
                    Liking = table.Column<int>(type: "INTEGER", nullable: true),
                    Notices = table.Column<string>(type: "TEXT", nullable: false),
                    SearchText = table.Column<string>(type: "TEXT", nullable: false),
                    DeletedAt = table.Column<long>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Shots", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Shots_Bags_BagId",
                        column: x => x.BagId,
                        principalTable: "Bags",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "FK_Shots_Brewers_BrewerId",
                        column: x => x.BrewerId,
                        principalTable: "Brewers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.SetNull);
                    table.ForeignKey(
                        name: "FK_Shots_Grinders_GrinderId",
                        column: x => x.GrinderId,
                        principalTable: "Grinders",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "FK_Shots_Machines_MachineId",
                        column: x => x.MachineId,
                        principalTable: "Machines",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "Traces",
                columns: table => new
                {
                    ShotId = table.Column<int>(type: "INTEGER", nullable: false),
                    Plan = table.Column<string>(type: "TEXT", nullable: false),
                    Marked = table.Column<string>(type: "TEXT", nullable: false),
                    Moments = table.Column<string>(type: "TEXT", nullable: false),
                    Packed = table.Column<byte[]>(type: "BLOB", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Traces", x => x.ShotId);
                    table.ForeignKey(
                        name: "FK_Traces_Shots_ShotId",
                        column: x => x.ShotId,
                        principalTable: "Shots",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Shots_Ledger",
                table: "Shots",
                columns: new[] { "DeletedAt", "PulledAt", "Id", "MachineId", "BagId", "BrewerId", "Liking" });

            migrationBuilder.Sql(ShotSearch.CreateSql);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("DROP TABLE ShotSearch;");

            migrationBuilder.DropTable(
                name: "Households");

            migrationBuilder.DropTable(
                name: "Traces");

            migrationBuilder.DropTable(
                name: "Shots");

            migrationBuilder.DropTable(
                name: "Bags");

            migrationBuilder.DropTable(
                name: "Brewers");

            migrationBuilder.DropTable(
                name: "Grinders");

            migrationBuilder.DropTable(
                name: "Machines");
        }
    }
}
