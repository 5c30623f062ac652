using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace RuddySpring.Store.Migrations
{
    /// <inheritdoc />
    public partial class LearnedPulls : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Learned",
                table: "Traces",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateIndex(
                name: "IX_ShotTraces_Learned",
                table: "Traces",
                column: "ShotId",
                filter: "Learned IS NOT NULL");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_ShotTraces_Learned",
                table: "Traces");

            migrationBuilder.DropColumn(
                name: "Learned",
                table: "Traces");
        }
    }
}
