using System.Text.Json;
using System.Text.Json.Serialization;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using RuddySpring.Store.Entities;

namespace RuddySpring.Store;

/// <summary>The database of one household.</summary>
public sealed class RuddyContext(DbContextOptions<RuddyContext> options) : DbContext(options)
{
    /// <summary>How records are kept as JSON inside a column.</summary>
    public static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter() },
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
    };

    public DbSet<Household> Households => Set<Household>();
    public DbSet<Brewer> Brewers => Set<Brewer>();
    public DbSet<BenchMachine> Machines => Set<BenchMachine>();
    public DbSet<Grinder> Grinders => Set<Grinder>();
    public DbSet<Bag> Bags => Set<Bag>();
    public DbSet<Shot> Shots => Set<Shot>();
    public DbSet<ShotTrace> Traces => Set<ShotTrace>();

    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder)
    {
        configurationBuilder.Properties<Enum>().HaveConversion<string>();
        configurationBuilder.Properties<DateTime>().HaveConversion<UtcTicks>();
        configurationBuilder.Properties<DateTime?>().HaveConversion<UtcTicks>();
    }

    protected override void OnModelCreating(ModelBuilder modelBuilder)
    {
        AsJson(modelBuilder.Entity<BenchMachine>().Property(m => m.Spec));
        var shot = modelBuilder.Entity<Shot>();
        AsJson(shot.Property(s => s.Plan));
        AsJson(shot.Property(s => s.Marked));
        AsJson(shot.Property(s => s.Moments));
        AsJson(shot.Property(s => s.Measures));
        shot.OwnsOne(s => s.Taste);
        shot.HasOne(s => s.Trace).WithOne().HasForeignKey<ShotTrace>(t => t.ShotId).OnDelete(DeleteBehavior.Cascade);
        shot.HasOne(s => s.Machine).WithMany().OnDelete(DeleteBehavior.Restrict);
        shot.HasOne(s => s.Bag).WithMany().OnDelete(DeleteBehavior.Restrict);
        shot.HasOne(s => s.Grinder).WithMany().OnDelete(DeleteBehavior.Restrict);
        shot.HasOne(s => s.Brewer).WithMany().OnDelete(DeleteBehavior.SetNull);
        shot.HasIndex(s => new { s.DeletedAt, s.PulledAt });
        shot.HasIndex(s => new { s.BagId, s.PulledAt });
        shot.HasIndex(s => new { s.MachineId, s.PulledAt });
        modelBuilder.Entity<ShotTrace>().HasKey(t => t.ShotId);
    }

    private static void AsJson<T>(PropertyBuilder<T> property)
        where T : class =>
        property.HasConversion(
            value => JsonSerializer.Serialize(value, Json),
            text => JsonSerializer.Deserialize<T>(text, Json)!,
            new Microsoft.EntityFrameworkCore.ChangeTracking.ValueComparer<T>(
                (a, b) => JsonSerializer.Serialize(a, Json) == JsonSerializer.Serialize(b, Json),
                value => JsonSerializer.Serialize(value, Json).GetHashCode(StringComparison.Ordinal),
                value => value));

    /// <summary>SQLite cannot order by dates with offsets; ticks of UTC it can.</summary>
    private sealed class UtcTicks() : Microsoft.EntityFrameworkCore.Storage.ValueConversion.ValueConverter<DateTime, long>(
        time => time.Ticks, ticks => new DateTime(ticks, DateTimeKind.Utc));
}
