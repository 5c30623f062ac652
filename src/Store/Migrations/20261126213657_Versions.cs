using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace RuddySpring.Store.Migrations
{
    /// <inheritdoc />
    public partial class Versions : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "PullId",
                table: "Shots",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "Version",
                table: "Shots",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<int>(
                name: "WantsVersion",
                table: "Sessions",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<int>(
                name: "Version",
                table: "Plans",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<int>(
                name: "Version",
                table: "Machines",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<int>(
                name: "Version",
                table: "Households",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<int>(
                name: "Version",
                table: "Grinders",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<int>(
                name: "Version",
                table: "Brewers",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<int>(
                name: "Version",
                table: "Baskets",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<int>(
                name: "Version",
                table: "Bags",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.CreateTable(
                name: "Sheets",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Version = table.Column<int>(type: "INTEGER", nullable: false),
                    Json = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Sheets", x => x.Id);
                });

            migrationBuilder.Sql("INSERT INTO Sheets (Id, Version, Json) SELECT 1, 0, SheetJson FROM Households WHERE SheetJson IS NOT NULL;");

            // in place: a rebuilt table could not be undone where it is interrupted
            migrationBuilder.Sql("ALTER TABLE Households DROP COLUMN SheetJson;");

            // of several open sessions of a machine the newest stays open
            migrationBuilder.Sql(
                "UPDATE Sessions SET EndedAt = CreatedAt WHERE EndedAt IS NULL AND EXISTS (SELECT 1 FROM Sessions n WHERE n.MachineId = Sessions.MachineId AND n.EndedAt IS NULL AND (n.CreatedAt > Sessions.CreatedAt OR (n.CreatedAt = Sessions.CreatedAt AND n.Id > Sessions.Id)));");

            migrationBuilder.CreateIndex(
                name: "IX_Shots_PullId",
                table: "Shots",
                column: "PullId",
                unique: true,
                filter: "PullId IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_Sessions_OneOpen",
                table: "Sessions",
                column: "MachineId",
                unique: true,
                filter: "EndedAt IS NULL");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Sheets");

            migrationBuilder.DropIndex(
                name: "IX_Shots_PullId",
                table: "Shots");

            migrationBuilder.DropIndex(
                name: "IX_Sessions_OneOpen",
                table: "Sessions");

            migrationBuilder.DropColumn(
                name: "PullId",
                table: "Shots");

            migrationBuilder.DropColumn(
                name: "Version",
                table: "Shots");

            migrationBuilder.DropColumn(
                name: "WantsVersion",
                table: "Sessions");

            migrationBuilder.DropColumn(
                name: "Version",
                table: "Plans");

            migrationBuilder.DropColumn(
                name: "Version",
                table: "Machines");

            migrationBuilder.DropColumn(
                name: "Version",
                table: "Households");

            migrationBuilder.DropColumn(
                name: "Version",
                table: "Grinders");

            migrationBuilder.DropColumn(
                name: "Version",
                table: "Brewers");

            migrationBuilder.DropColumn(
                name: "Version",
                table: "Baskets");

            migrationBuilder.DropColumn(
                name: "Version",
                table: "Bags");

            migrationBuilder.AddColumn<string>(
                name: "SheetJson",
                table: "Households",
                type: "TEXT",
                nullable: true);
        }
    }
}
