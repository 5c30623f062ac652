using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace RuddySpring.Store.Migrations
{
    /// <inheritdoc />
    public partial class Reasoning : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<double>(
                name: "Strength",
                table: "Shots",
                type: "REAL",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Tapped",
                table: "Shots",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "Advices",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    ShotId = table.Column<int>(type: "INTEGER", nullable: false),
                    TakenAt = table.Column<long>(type: "INTEGER", nullable: false),
                    Taken = table.Column<string>(type: "TEXT", nullable: false),
                    JudgedById = table.Column<int>(type: "INTEGER", nullable: true),
                    Worked = table.Column<bool>(type: "INTEGER", nullable: true),
                    Sentence = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Advices", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Advices_ShotId",
                table: "Advices",
                column: "ShotId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Advices");

            migrationBuilder.DropColumn(
                name: "Strength",
                table: "Shots");

            migrationBuilder.DropColumn(
                name: "Tapped",
                table: "Shots");
        }
    }
}
