using System.Text.Json;
using System.Text.Json.Serialization;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.ChangeTracking;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using RuddySpring.Core;
using RuddySpring.Core.Beans;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Practice;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Reasoning;
using RuddySpring.Core.Traces;
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

    private static readonly (Type Of, string Column)[] Named =
    [
        (typeof(Bag), "BagId"),
        (typeof(BenchMachine), "MachineId"),
        (typeof(Brewer), "BrewerId"),
        (typeof(Grinder), "GrinderId"),
        (typeof(Shot), "Id"),
    ];

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
    public DbSet<KeptSheet> Sheets => Set<KeptSheet>();
    public DbSet<Advice> Advices => Set<Advice>();
    public DbSet<Ladder> Ladders => Set<Ladder>();
    public DbSet<SavedView> Views => Set<SavedView>();
    public DbSet<ImportSource> ImportSources => Set<ImportSource>();
    public DbSet<ShotPhoto> Photos => Set<ShotPhoto>();
    public DbSet<CareDone> CareDone => Set<CareDone>();
    public DbSet<CareChoice> CareChoices => Set<CareChoice>();

    public override int SaveChanges(bool acceptAllChangesOnSuccess)
    {
        CountVersions();
        var renamed = Renamed();
        using var own = renamed.Count > 0 && Database.CurrentTransaction is null ? Database.BeginTransaction() : null;
        var changed = base.SaveChanges(acceptAllChangesOnSuccess);
        foreach (var (column, rows) in renamed)
            Database.ExecuteSqlRaw(ShotSearch.RenewSql(column), Ids(rows));
        own?.Commit();
        return changed;
    }

    public override async Task<int> SaveChangesAsync(
        bool acceptAllChangesOnSuccess,
        CancellationToken cancellationToken = default
    )
    {
        CountVersions();
        var renamed = Renamed();
        await using var own =
            renamed.Count > 0 && Database.CurrentTransaction is null
                ? await Database.BeginTransactionAsync(cancellationToken)
                : null;
        var changed = await base.SaveChangesAsync(acceptAllChangesOnSuccess, cancellationToken);
        foreach (var (column, rows) in renamed)
            await Database.ExecuteSqlRawAsync(ShotSearch.RenewSql(column), [Ids(rows)], cancellationToken);
        if (own is not null)
            await own.CommitAsync(cancellationToken);
        return changed;
    }

    private void CountVersions()
    {
        foreach (var entry in ChangeTracker.Entries<IVersioned>())
        {
            // what a row owns is part of it: a taste in other words is another shot, though its liking is the same
            var owned = entry.References.Any(r =>
                r.TargetEntry is { State: EntityState.Modified or EntityState.Added } part && part.Metadata.IsOwned()
            );
            if (entry.State == EntityState.Modified || (entry.State == EntityState.Unchanged && owned))
                entry.Property(v => v.Version).CurrentValue++;
        }
    }

    /// <summary>Rows whose names or words are about to change, so that the words of their shots do.</summary>
    private List<(string Column, List<object> Rows)> Renamed()
    {
        static bool Changes(EntityEntry entry) =>
            entry.Entity is Shot
                ? entry.State == EntityState.Added
                    || (entry.Reference(nameof(Shot.Taste)).TargetEntry is { State: EntityState.Modified or EntityState.Added })
                    || entry.Properties.Any(p =>
                        p.IsModified
                        && p.Metadata.Name
                            is nameof(Shot.BagId)
                                or nameof(Shot.BrewerId)
                                or nameof(Shot.GrinderId)
                                or nameof(Shot.MachineId)
                    )
                : entry.State == EntityState.Modified
                    && entry.Properties.Any(p => p.IsModified && p.Metadata.Name is nameof(Bag.Name) or nameof(Bag.Roaster));
        return
        [
            .. ChangeTracker
                .Entries()
                .Where(Changes)
                .Select(e => (Named.FirstOrDefault(n => n.Of == e.Entity.GetType()).Column, e.Entity))
                .Where(e => e.Column is not null)
                .GroupBy(e => e.Column, e => e.Entity)
                .Select(g => (g.Key, g.ToList())),
        ];
    }

    // asked after saving: a new row has no number before
    private string Ids(List<object> rows) =>
        JsonSerializer.Serialize(rows.Select(r => (int)Entry(r).Property("Id").CurrentValue!));

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
        foreach (var versioned in modelBuilder.Model.GetEntityTypes().Where(t => typeof(IVersioned).IsAssignableFrom(t.ClrType)))
            versioned.FindProperty(nameof(IVersioned.Version))!.IsConcurrencyToken = true;
        AsJson(
            modelBuilder.Entity<BenchMachine>().Property(m => m.Spec),
            () => FamilyDefaults.Of(MachineFamily.PortableLever).Machine with { },
            m => m.Checked()
        );
        AsJson(
                modelBuilder.Entity<Household>().Property(h => h.Rest),
                () => RestWindow.Of(RestSchool.SevenToTen) with { },
                r => r.Checked()
            )
            .HasDefaultValue(RestWindow.Of(RestSchool.SevenToTen));
        modelBuilder.Entity<Household>().Property(h => h.School).HasDefaultValue(SchoolList.Usual.Key);
        AsJson(modelBuilder.Entity<Household>().Property(h => h.TasteWords), () => [.. TasteWords.Usual], TasteWords.Checked)
            .HasDefaultValue(TasteWords.Usual);
        modelBuilder.Entity<Bag>().Ignore(b => b.Dates);
        AsJson(modelBuilder.Entity<BenchBasket>().Property(b => b.Spec), () => new BenchBasket().Spec with { }, b => b.Checked());
        AsJson(
            modelBuilder.Entity<OwnPlan>().Property(p => p.Plan),
            () => ShippedPlans.EarlyPeak with { Name = "A plan that cannot be read" },
            p => p.Checked()
        );
        modelBuilder.Entity<OwnPlan>().Ignore(p => p.Keyed);
        AsJson(modelBuilder.Entity<PracticeAttempt>().Property(p => p.Score), () => new PracticeScore(0, [], ""));
        modelBuilder.Entity<PracticeAttempt>().HasIndex(p => new { p.LessonKey, p.PlayedAt });
        var session = modelBuilder.Entity<Session>();
        AsJson(session.Property(s => s.Wants), () => new Session().Wants with { }, w => w.Checked());
        AsJson(session.Property(s => s.Log), () => new(), l => l.Checked());
        session.Property(s => s.WantsVersion).IsConcurrencyToken();
        session.HasIndex(s => s.MachineId).HasFilter("EndedAt IS NULL").IsUnique().HasDatabaseName("IX_Sessions_OneOpen");
        session.HasOne(s => s.Machine).WithMany().OnDelete(DeleteBehavior.Restrict);
        session.HasIndex(s => new { s.MachineId, s.CreatedAt });
        var shot = modelBuilder.Entity<Shot>();
        AsJson(shot.Property(s => s.Measures), () => new Shot().Measures with { });
        AsJson(shot.Property(s => s.Preparation!), () => new());
        AsJson(shot.Property(s => s.Tapped!), () => []);
        AsJson(shot.Property(s => s.Before!), () => new());
        modelBuilder.Entity<SavedView>().HasIndex(v => v.Name).IsUnique().HasDatabaseName("IX_Views_Name");
        modelBuilder
            .Entity<ImportSource>()
            .HasIndex(s => s.Fingerprint)
            .IsUnique()
            .HasDatabaseName("IX_ImportSources_Fingerprint");
        var photo = modelBuilder.Entity<ShotPhoto>();
        photo.HasOne(p => p.Shot).WithMany().HasForeignKey(p => p.ShotId).OnDelete(DeleteBehavior.Cascade);
        photo.HasIndex(p => p.ShotId).HasDatabaseName("IX_Photos_ShotId");
        var done = modelBuilder.Entity<CareDone>();
        done.HasOne(d => d.Machine).WithMany().OnDelete(DeleteBehavior.Cascade);
        done.HasIndex(d => new
        {
            d.MachineId,
            d.Task,
            d.DoneOn,
        });
        var choice = modelBuilder.Entity<CareChoice>();
        AsJson(choice.Property(c => c.Interval!), () => new(Days: 365), i => i.Checked());
        choice.HasOne(c => c.Machine).WithMany().OnDelete(DeleteBehavior.Cascade);
        choice.HasIndex(c => new { c.MachineId, c.Task }).IsUnique();
        modelBuilder.Entity<Household>().Property(h => h.WaterHardness).HasDefaultValue(Core.Care.Descaling.UsualHardness);
        var ladder = modelBuilder.Entity<Ladder>();
        AsJson(ladder.Property(l => l.Plan), () => new Ladder().Plan with { });
        AsJson(ladder.Property(l => l.Places!), () => []);
        AsJson(ladder.Property(l => l.Liked!), () => []);
        var advice = modelBuilder.Entity<Advice>();
        AsJson(advice.Property(a => a.Taken), () => new Advice().Taken with { });
        advice.HasIndex(a => a.ShotId);
        shot.HasIndex(s => s.PullId).IsUnique().HasFilter("PullId IS NOT NULL").HasDatabaseName("IX_Shots_PullId");
        shot.HasIndex(s => s.FileHash).HasFilter("FileHash IS NOT NULL").HasDatabaseName("IX_Shots_FileHash");
        shot.HasOne(s => s.Basket).WithMany().OnDelete(DeleteBehavior.Restrict);
        shot.OwnsOne(s => s.Taste);
        shot.HasOne(s => s.Trace).WithOne().HasForeignKey<ShotTrace>(t => t.ShotId).OnDelete(DeleteBehavior.Cascade);
        shot.HasOne(s => s.Machine).WithMany().OnDelete(DeleteBehavior.Restrict);
        shot.HasOne(s => s.Bag).WithMany().OnDelete(DeleteBehavior.Restrict);
        shot.HasOne(s => s.Grinder).WithMany().OnDelete(DeleteBehavior.Restrict);
        shot.HasOne(s => s.Brewer).WithMany().OnDelete(DeleteBehavior.SetNull);
        // what a machine was used is summed up within this index alone
        shot.HasIndex(s => new
            {
                s.MachineId,
                s.DeletedAt,
                s.PulledAt,
                s.YieldGrams,
                s.DoseGrams,
            })
            .HasDatabaseName("IX_Shots_Use");
        // the ledger counts, filters and orders within IX_Shots_Ledger alone; that holds the marks of the taste too, which are an
        // owned type's, so that migrations make it, TastesFirst the last of them; so are those of strong tastes, by FilterIndexes
        // the newest shots of a bag or a grinder, wherever they lie among the others; the migration FilterIndexes has put all that
        // the ledger filters by behind them, and behind the plan's
        shot.HasIndex(s => new
            {
                s.BagId,
                s.DeletedAt,
                s.PulledAt,
            })
            .HasDatabaseName("IX_Shots_Bag");
        shot.HasIndex(s => new
            {
                s.GrinderId,
                s.DeletedAt,
                s.PulledAt,
            })
            .HasDatabaseName("IX_Shots_Grinder");
        // what the ledger is ordered by is taken from the measures by the database itself. Each order has an index with all that
        // the ledger filters by in it, so that what does not fit is passed over within the index; the migration OrderIndexes makes
        // them, for the marks of the taste again
        foreach (
            var (name, measure) in new[]
            {
                (nameof(Shot.SecondsToOrderBy), "secondsFromPressure"),
                (nameof(Shot.CupGramsToOrderBy), "cupGrams"),
                (nameof(Shot.R10ToOrderBy), "r10"),
            }
        )
        {
            shot.Property<double?>(name)
                .HasComputedColumnSql(
                    $"CASE WHEN json_valid(Measures) THEN CAST(json_extract(Measures, '$.{measure}') AS REAL) END",
                    stored: false
                );
        }

        shot.HasIndex(s => s.Cause).HasFilter("Cause IS NOT NULL").HasDatabaseName("IX_Shots_Cause");
        // the shots of a plan by date: a filter of the ledger, and what a shot is compared with when it is reasoned about
        shot.HasIndex(s => new
            {
                s.DeletedAt,
                s.PlanName,
                s.PulledAt,
                s.Id,
                s.MachineId,
            })
            .HasDatabaseName("IX_Shots_PlanName");
        var trace = modelBuilder.Entity<ShotTrace>();
        trace.HasKey(t => t.ShotId);
        trace.Property(t => t.Clock).HasDefaultValue(ClockStart.Lever);
        AsJson(trace.Property(t => t.Plan), () => ShippedPlans.EarlyPeak with { Name = "A plan that cannot be read" });
        AsJson(trace.Property(t => t.Marked), () => Moments.None with { });
        AsJson(trace.Property(t => t.Moments), () => Moments.None with { });
        AsJson(trace.Property(t => t.Learned!), () => new(null, null, "", null), l => l with { Puck = l.Puck?.Checked() });
        trace.HasIndex(t => t.ShotId).HasFilter("Learned IS NOT NULL").HasDatabaseName("IX_ShotTraces_Learned");
    }

    /// <summary>A record kept as JSON. One that cannot be read, or is not sound, is shown as <paramref name="instead"/> and stays
    /// as it is.</summary>
    private static PropertyBuilder<T> AsJson<T>(PropertyBuilder<T> property, Func<T> instead, Func<T, T>? check = null)
        where T : class =>
        property.HasConversion(
            value => JsonSerializer.Serialize(value, Json),
            text => Read(text, instead, check),
            new ValueComparer<T>(
                // what stands in for something odd equals nothing but itself: putting the same in its place mends it
                (a, b) =>
                    ReferenceEquals(a, b)
                    || (
                        Odd.Reason(a) == null
                        && Odd.Reason(b) == null
                        && JsonSerializer.Serialize(a, Json) == JsonSerializer.Serialize(b, Json)
                    ),
                value => JsonSerializer.Serialize(value, Json).GetHashCode(StringComparison.Ordinal),
                value => value
            )
        );

    private static T Read<T>(string text, Func<T> instead, Func<T, T>? check)
        where T : class
    {
        try
        {
            var value = JsonSerializer.Deserialize<T>(text, Json);
            if (value is null)
                return Odd.StandIn(instead(), "It is empty.");
            return check is null ? value : check(value);
        }
        catch (FieldRangeException error)
        {
            return Odd.StandIn(instead(), error.Sentence);
        }
        catch (DoesNotFitException error)
        {
            return Odd.StandIn(instead(), error.Sentence);
        }
        catch (Exception error)
            when (error is JsonException or NullReferenceException or ArgumentException or InvalidOperationException)
        {
            return Odd.StandIn(instead(), "Something in it is missing or of another kind.");
        }
    }

    /// <summary>SQLite cannot order by dates with offsets; ticks of UTC it can.</summary>
    private sealed class UtcTicks()
        : Microsoft.EntityFrameworkCore.Storage.ValueConversion.ValueConverter<DateTime, long>(
            time => time.Ticks,
            ticks => new DateTime(ticks, DateTimeKind.Utc)
        );
}
