using System.Text.Json;
using System.Text.Json.Serialization;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using RuddySpring.Core.Beans;
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
    public DbSet<BenchBasket> Baskets => Set<BenchBasket>();
    public DbSet<OwnPlan> Plans => Set<OwnPlan>();
    public DbSet<Bag> Bags => Set<Bag>();
    public DbSet<Shot> Shots => Set<Shot>();
    public DbSet<ShotTrace> Traces => Set<ShotTrace>();
    public DbSet<PracticeAttempt> Practice => Set<PracticeAttempt>();
    public DbSet<Session> Sessions => Set<Session>();

    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder)
    {
        // one wide index serves the ledger; an index for each foreign key only tempts the planner into sorting
        configurationBuilder.Conventions.Remove<Microsoft.EntityFrameworkCore.Metadata.Conventions.ForeignKeyIndexConvention>();
        configurationBuilder.Properties<Enum>().HaveConversion<string>();
        configurationBuilder.Properties<DateTime>().HaveConversion<UtcTicks>();
        configurationBuilder.Properties<DateTime?>().HaveConversion<UtcTicks>();
    }

    protected override void OnModelCreating(ModelBuilder modelBuilder)
    {
        AsJson(modelBuilder.Entity<BenchMachine>().Property(m => m.Spec));
        AsJson(modelBuilder.Entity<Household>().Property(h => h.Rest)).HasDefaultValue(RestWindow.Of(RestSchool.SevenToTen));
        modelBuilder.Entity<Bag>().Ignore(b => b.Dates);
        AsJson(modelBuilder.Entity<BenchBasket>().Property(b => b.Spec));
        AsJson(modelBuilder.Entity<OwnPlan>().Property(p => p.Plan));
        modelBuilder.Entity<OwnPlan>().Ignore(p => p.Keyed);
        AsJson(modelBuilder.Entity<PracticeAttempt>().Property(p => p.Score));
        modelBuilder.Entity<PracticeAttempt>().HasIndex(p => new { p.LessonKey, p.PlayedAt });
        var session = modelBuilder.Entity<Session>();
        AsJson(session.Property(s => s.Wants));
        AsJson(session.Property(s => s.Log));
        session.HasOne(s => s.Machine).WithMany().OnDelete(DeleteBehavior.Restrict);
        session.HasIndex(s => new { s.MachineId, s.CreatedAt });
        var shot = modelBuilder.Entity<Shot>();
        AsJson(shot.Property(s => s.Measures));
        AsJson(shot.Property(s => s.Preparation!));
        shot.HasOne(s => s.Basket).WithMany().OnDelete(DeleteBehavior.Restrict);
        shot.OwnsOne(s => s.Taste);
        shot.HasOne(s => s.Trace).WithOne().HasForeignKey<ShotTrace>(t => t.ShotId).OnDelete(DeleteBehavior.Cascade);
        shot.HasOne(s => s.Machine).WithMany().OnDelete(DeleteBehavior.Restrict);
        shot.HasOne(s => s.Bag).WithMany().OnDelete(DeleteBehavior.Restrict);
        shot.HasOne(s => s.Grinder).WithMany().OnDelete(DeleteBehavior.Restrict);
        shot.HasOne(s => s.Brewer).WithMany().OnDelete(DeleteBehavior.SetNull);
        // the ledger counts, filters and orders within this index alone
        shot.HasIndex(s => new { s.DeletedAt, s.PulledAt, s.Id, s.MachineId, s.BagId, s.BrewerId, s.Liking }).HasDatabaseName("IX_Shots_Ledger");
        var trace = modelBuilder.Entity<ShotTrace>();
        trace.HasKey(t => t.ShotId);
        AsJson(trace.Property(t => t.Plan));
        AsJson(trace.Property(t => t.Marked));
        AsJson(trace.Property(t => t.Moments));
    }

    private static PropertyBuilder<T> AsJson<T>(PropertyBuilder<T> property)
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
