using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace RuddySpring.Store.Migrations
{
    /// <inheritdoc />
    public partial class ImportedShots : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "FileHash",
                table: "Shots",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<double>(
                name: "GroupC",
                table: "Shots",
                type: "REAL",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Seen",
                table: "Shots",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.CreateIndex(
                name: "IX_Shots_FileHash",
                table: "Shots",
                column: "FileHash",
                filter: "FileHash IS NOT NULL");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Shots_FileHash",
                table: "Shots");

            migrationBuilder.DropColumn(
                name: "FileHash",
                table: "Shots");

            migrationBuilder.DropColumn(
                name: "GroupC",
                table: "Shots");

            migrationBuilder.DropColumn(
                name: "Seen",
                table: "Shots");
        }
    }
}
