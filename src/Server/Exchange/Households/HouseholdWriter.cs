using System.Text;
using System.Text.Json;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Ledger;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Exchange.Households;

/// <summary>Writes a whole household piece by piece: a line each, so that a fault is found by its line.</summary>
public sealed class HouseholdWriter(RuddyContext db, Stream to)
{
    private const int AtOnce = 100;
    private static readonly byte[] NewLine = "\n"u8.ToArray();

    /// <summary>Writes everything, as it stands at one moment.</summary>
    public async Task WriteAsync(DateTime nowUtc, CancellationToken cancel)
    {
        // what is changed while it is written is not in it: one reading transaction sees one state
        await db.Database.OpenConnectionAsync(cancel);
        await using var one = ((SqliteConnection)db.Database.GetDbConnection()).BeginTransaction(deferred: true);
        await db.Database.UseTransactionAsync(one, cancel);
        var household = await db.Households.AsNoTracking().SingleAsync(cancel);
        var head = new FiledHousehold(
            household.Name,
            household.AltitudeMetres,
            household.AmbientC,
            household.PressureUnit,
            household.TemperatureUnit,
            household.ForceUnit,
            household.School,
            household.TasteWords,
            household.Rest,
            household.WaterHardness
        );
        await TextAsync(
            $"{{\n\"format\":\"{HouseholdFile.FormatName}\",\n\"version\":{HouseholdFile.CurrentVersion},\n"
                + $"\"writtenAt\":\"{nowUtc:O}\",\n\"household\":{Json(head)}",
            cancel
        );
        await ListAsync("brewers", db.Brewers, b => b.Id, Filed, cancel);
        await ListAsync("machines", db.Machines, m => m.Id, m => new FiledMachine(m.Id, m.Name, m.Spec, m.DeletedAt), cancel);
        await ListAsync("grinders", db.Grinders, g => g.Id, Filed, cancel);
        await ListAsync("baskets", db.Baskets, b => b.Id, b => new FiledBasket(b.Id, b.Name, b.Spec, b.DeletedAt), cancel);
        await ListAsync("bags", db.Bags, b => b.Id, Filed, cancel);
        await ListAsync("plans", db.Plans, p => p.Id, p => new FiledPlan(p.Id, p.Plan, p.DeletedAt), cancel);
        await ListAsync("shots", db.Shots.Include(s => s.Trace), s => s.Id, Filed, cancel);
        await ListAsync("photos", db.Photos, p => p.Id, p => new FiledPhoto(p.ShotId, p.AddedAt, p.Jpeg), cancel);
        await ListAsync("advice", db.Advices, a => a.Id, Filed, cancel);
        await ListAsync("sessions", db.Sessions, s => s.Id, Filed, cancel);
        await ListAsync(
            "practice",
            db.Practice,
            p => p.Id,
            p => new FiledPractice(p.LessonKey, p.PlayedAt, p.Family, p.Score),
            cancel
        );
        await ListAsync("ladders", db.Ladders, l => l.Id, l => new FiledLadder(l.CreatedAt, l.Plan, l.Places, l.Liked), cancel);
        await ListAsync("views", db.Views, v => v.Id, v => new FiledView(v.Name, v.Query), cancel);
        await ListAsync("care", db.CareDone, d => d.Id, d => new FiledCareDone(d.MachineId, d.Task, d.DoneOn, d.Note), cancel);
        await ListAsync(
            "careChoices",
            db.CareChoices,
            c => c.Id,
            c => new FiledCareChoice(c.MachineId, c.Task, c.Interval, c.IsOff),
            cancel
        );
        await TextAsync("\n}\n", cancel);
    }

    private static FiledBrewer Filed(Brewer b) => new(b.Id, b.Name, b.School, b.PressureUnit, b.TemperatureUnit, b.ForceUnit);

    private static FiledGrinder Filed(Grinder g) =>
        new(g.Id, g.Name, g.ScaleUnit, g.Step, g.FinerIsLower, g.ZeroPoint, g.RetentionGrams, g.PurgeGrams, g.DeletedAt);

    private static FiledBag Filed(Bag b) =>
        new(
            b.Id,
            b.Name,
            b.Roaster,
            b.RoastedOn,
            b.RoastLevel,
            b.Finished,
            b.Process,
            b.OpenedOn,
            b.FrozenOn,
            b.ThawedOn,
            b.GramsLeft,
            b.BrewerId,
            b.DeletedAt
        );

    private static FiledAdvice Filed(Advice a) => new(a.ShotId, a.TakenAt, a.Taken, a.JudgedById, a.Worked, a.Sentence);

    private static FiledSession Filed(Session s) =>
        new(s.MachineId, s.CreatedAt, s.AmbientC, s.AltitudeMetres, s.Wants, s.Log, s.OriginAt, s.ReadyAt, s.EndedAt);

    private static FiledShot Filed(Shot s) =>
        new(
            s.Id,
            s.PulledAt,
            s.Source,
            s.MachineId,
            s.DoseGrams,
            s.YieldGrams,
            s.Trace.Plan,
            s.Trace.Marked,
            s.Measures,
            [.. ShotViews.TraceOf(s).Series.Select(Filed)],
            s.Trace.Clock,
            s.PullId,
            s.BrewerId,
            s.BagId,
            s.GrinderId,
            s.GrindSetting,
            s.BasketId,
            s.Preparation,
            s.WaterC,
            s.GroupC,
            s.Seen,
            s.FileHash,
            s.Taste.Sour,
            s.Taste.Bitter,
            s.Taste.Dry,
            s.Taste.Sweet,
            s.Taste.Body,
            s.Liking,
            s.Taste.Words,
            s.Tapped,
            s.Before,
            s.Strength,
            s.Cause,
            s.Notices,
            s.Trace.Learned,
            s.DeletedAt
        );

    private static FiledSeries Filed(Series series) =>
        new(
            series.Channel,
            series.Origin,
            [.. series.Seconds.Select(v => Math.Round(v, 3))],
            [.. series.Values.Select(v => Math.Round(v, 3))]
        );

    private async Task ListAsync<TRow, TFiled>(
        string name,
        IQueryable<TRow> rows,
        System.Linq.Expressions.Expression<Func<TRow, int>> id,
        Func<TRow, TFiled> filed,
        CancellationToken cancel
    )
        where TRow : class
    {
        await TextAsync($",\n\"{name}\":[", cancel);
        var number = id.Compile();
        var parameter = id.Parameters[0];
        var isFirst = true;
        for (var after = 0; ; )
        {
            var later = System.Linq.Expressions.Expression.Lambda<Func<TRow, bool>>(
                System.Linq.Expressions.Expression.GreaterThan(id.Body, System.Linq.Expressions.Expression.Constant(after)),
                parameter
            );
            var some = await rows.AsNoTracking().Where(later).OrderBy(id).Take(AtOnce).ToListAsync(cancel);
            foreach (var row in some)
            {
                await TextAsync(isFirst ? "\n" : ",\n", cancel);
                isFirst = false;
                await JsonSerializer.SerializeAsync(to, filed(row), HouseholdJson.Options, cancel);
            }

            if (some.Count < AtOnce)
                break;
            after = number(some[^1]);
        }

        await to.WriteAsync(isFirst ? [] : NewLine, cancel);
        await TextAsync("]", cancel);
    }

    private static string Json<T>(T value) => JsonSerializer.Serialize(value, HouseholdJson.Options);

    private ValueTask TextAsync(string text, CancellationToken cancel) => to.WriteAsync(Encoding.UTF8.GetBytes(text), cancel);
}
