using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace RuddySpring.EmptyServer;

/// <summary>A row of the one table.</summary>
public sealed class Thing
{
    public int Id { get; set; }
    public string Name { get; set; } = "";
}

/// <summary>One table and nothing else.</summary>
public sealed class EmptyContext(DbContextOptions<EmptyContext> options) : DbContext(options)
{
    public DbSet<Thing> Things => Set<Thing>();
}

/// <summary>The one migration.</summary>
[DbContext(typeof(EmptyContext))]
[Migration("20260101000000_Things")]
public sealed class Things : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder) =>
        migrationBuilder.CreateTable(
            "Things",
            table => new { Id = table.Column<int>().Annotation("Sqlite:Autoincrement", true), Name = table.Column<string>() },
            constraints: table => table.PrimaryKey("PK_Things", x => x.Id)
        );

    protected override void Down(MigrationBuilder migrationBuilder) => migrationBuilder.DropTable("Things");
}
