using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace RuddySpring.Store.Migrations
{
    /// <inheritdoc />
    public partial class Schools : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Before",
                table: "Shots",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "School",
                table: "Households",
                type: "TEXT",
                nullable: false,
                defaultValue: "time-and-ratio");

            migrationBuilder.AddColumn<string>(
                name: "TasteWords",
                table: "Households",
                type: "TEXT",
                nullable: false,
                defaultValue: "[\"chocolate\",\"nuts\",\"caramel\",\"honey\",\"berries\",\"citrus\",\"stone fruit\",\"flowers\",\"spice\",\"smoke\",\"ash\",\"wood\",\"grass\",\"salt\",\"syrupy\",\"thin\",\"clean\",\"muddy\"]");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "Before",
                table: "Shots");

            migrationBuilder.DropColumn(
                name: "School",
                table: "Households");

            migrationBuilder.DropColumn(
                name: "TasteWords",
                table: "Households");
        }
    }
}
