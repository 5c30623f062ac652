using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace RuddySpring.Store.Migrations
{
    /// <inheritdoc />
    public partial class CareAndStorage : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<int>(
                name: "BinDays",
                table: "Households",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<double>(
                name: "WaterHardness",
                table: "Households",
                type: "REAL",
                nullable: false,
                defaultValue: 150.0);

            migrationBuilder.CreateTable(
                name: "CareChoices",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    MachineId = table.Column<int>(type: "INTEGER", nullable: false),
                    Task = table.Column<string>(type: "TEXT", nullable: false),
                    Interval = table.Column<string>(type: "TEXT", nullable: true),
                    IsOff = table.Column<bool>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_CareChoices", x => x.Id);
                    table.ForeignKey(
                        name: "FK_CareChoices_Machines_MachineId",
                        column: x => x.MachineId,
                        principalTable: "Machines",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "CareDone",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    MachineId = table.Column<int>(type: "INTEGER", nullable: false),
                    Task = table.Column<string>(type: "TEXT", nullable: false),
                    DoneOn = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    Note = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_CareDone", x => x.Id);
                    table.ForeignKey(
                        name: "FK_CareDone_Machines_MachineId",
                        column: x => x.MachineId,
                        principalTable: "Machines",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Shots_Use",
                table: "Shots",
                columns: new[] { "MachineId", "DeletedAt", "PulledAt", "YieldGrams", "DoseGrams" });

            migrationBuilder.CreateIndex(
                name: "IX_CareChoices_MachineId_Task",
                table: "CareChoices",
                columns: new[] { "MachineId", "Task" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_CareDone_MachineId_Task_DoneOn",
                table: "CareDone",
                columns: new[] { "MachineId", "Task", "DoneOn" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "CareChoices");

            migrationBuilder.DropTable(
                name: "CareDone");

            migrationBuilder.DropIndex(
                name: "IX_Shots_Use",
                table: "Shots");

            migrationBuilder.DropColumn(
                name: "BinDays",
                table: "Households");

            migrationBuilder.DropColumn(
                name: "WaterHardness",
                table: "Households");
        }
    }
}
