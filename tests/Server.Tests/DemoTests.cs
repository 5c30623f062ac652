using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;
using RuddySpring.Core.Pulls;
using RuddySpring.Store;
using RuddySpring.Store.Demo;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Tests;

/// <summary>The sample household hangs together, and the file keeps what it is given.</summary>
public sealed class DemoTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("ruddy-demo-").FullName;
    private readonly DateTime _now = new(2026, 3, 10, 9, 0, 0, DateTimeKind.Utc);

    public void Dispose()
    {
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        Directory.Delete(_folder, recursive: true);
    }

    private RuddyContext Filled()
    {
        StoreFile.Migrate(_folder);
        var context = new RuddyContext(StoreFile.Options(_folder));
        HutScenario.Fill(context, _now);
        return context;
    }

    [Fact]
    public void The_hut_has_what_it_promises()
    {
        using var db = Filled();
        Assert.Equal(3, db.Machines.Count());
        Assert.Equal(2, db.Brewers.Count());
        var shots = db.Shots.ToList();
        Assert.True(shots.Count >= 40, $"{shots.Count} shots");
        Assert.True((shots.Max(s => s.PulledAt) - shots.Min(s => s.PulledAt)).TotalDays > 28);
        Assert.All(shots, s => Assert.True(s.PulledAt < _now));
        Assert.Equal(shots.OrderBy(s => s.Id).Select(s => s.Id), shots.OrderBy(s => s.PulledAt).Select(s => s.Id));
        Assert.All(shots, s => Assert.Equal(ShotSource.MadeUp, s.Source));
        Assert.True(shots.Select(s => s.Liking).Distinct().Count() >= 4);
    }

    [Fact] // finer settings of one grinder on one bag in one basket give more R10, as they must
    public void Grind_and_R10_hang_together()
    {
        using var db = Filled();
        var pairs = db
            .Shots.Include(s => s.Grinder)
            .ToList()
            .Where(s => s.Measures.R10 is not null)
            .GroupBy(s => (s.BagId, s.GrinderId, s.BasketId))
            .Where(g => g.Select(s => s.GrindSetting).Distinct().Count() > 1);
        foreach (var group in pairs)
        {
            var low = group
                .Where(s => s.GrindSetting == group.Min(x => x.GrindSetting))
                .Average(s => s.Measures.R10!.Value / s.DoseGrams);
            var high = group
                .Where(s => s.GrindSetting == group.Max(x => x.GrindSetting))
                .Average(s => s.Measures.R10!.Value / s.DoseGrams);
            Assert.True(
                low > high,
                $"bag {group.Key.BagId} on grinder {group.Key.GrinderId}: {low:0.00} at the finer, {high:0.00} at the coarser"
            );
        }
    }

    [Fact]
    public void The_same_day_makes_the_same_hut()
    {
        using var db = Filled();
        var first = db.Shots.OrderBy(s => s.Id).Select(s => s.PulledAt).ToList();
        var folder = Directory.CreateTempSubdirectory("ruddy-demo-").FullName;
        try
        {
            StoreFile.Migrate(folder);
            using var again = new RuddyContext(StoreFile.Options(folder));
            HutScenario.Fill(again, _now);
            Assert.Equal(first, again.Shots.OrderBy(s => s.Id).Select(s => s.PulledAt).ToList());
        }
        finally
        {
            Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
            Directory.Delete(folder, recursive: true);
        }
    }

    [Fact] // budget: at most 8 bytes a sample of three channels; two channels here
    public void Stored_traces_are_small()
    {
        using var db = Filled();
        var bytes = db.Traces.ToList().Sum(t => (double)t.Packed.Length);
        var samples = db.Traces.ToList().Sum(t => RuddySpring.Core.Traces.TraceCodec.Decode(t.Packed).Series[0].Count);
        Assert.True(bytes / samples <= 8.0 * 2 / 3, $"{bytes / samples:0.0} bytes a sample");
    }

    [Fact]
    public void Migrating_is_done_once_and_write_ahead_logging_is_on()
    {
        StoreFile.Migrate(_folder);
        StoreFile.Migrate(_folder);
        using var db = new RuddyContext(StoreFile.Options(_folder));
        Assert.Empty(db.Database.GetPendingMigrations());
        using var connection = db.Database.GetDbConnection();
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText = "PRAGMA journal_mode";
        Assert.Equal("wal", command.ExecuteScalar());
    }

    [Fact]
    public void A_plan_of_an_older_file_keeps_the_flow_it_holds_and_the_older_file_stays()
    {
        using (var db = new RuddyContext(StoreFile.Options(_folder)))
        {
            db.GetService<IMigrator>().Migrate("Practice");
            var plan = System.Text.Json.JsonSerializer.Serialize(
                ShippedPlans.Find("hold-flow")! with
                {
                    Name = "Mine",
                },
                RuddyContext.Json
            );
            db.Database.ExecuteSql($"INSERT INTO Plans (Plan) VALUES ({plan})");
            db.Database.ExecuteSqlRaw(
                "UPDATE Plans SET Plan = replace(replace(Plan, 'flowGramsPerS', 'flowMlPerS'), ' g/s', ' ml/s')"
            );
        }

        StoreFile.Migrate(_folder);
        using var now = new RuddyContext(StoreFile.Options(_folder));
        var held = now.Plans.Single().Plan.Phases.Single(p => p.Move == PhaseMove.HoldFlow);
        Assert.Equal(1.5, held.FlowGramsPerS);
        Assert.EndsWith("1.5 g/s", held.Cue);
        Assert.Single(Directory.GetFiles(_folder, "ruddy-spring.before-*.db"));
    }

    [Fact]
    public void The_model_has_no_change_without_a_migration()
    {
        using var db = new RuddyContext(StoreFile.Options(_folder));
        Assert.False(db.Database.HasPendingModelChanges());
    }
}
