using Microsoft.EntityFrameworkCore;
using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Ledger;
using RuddySpring.Server.Sessions;
using RuddySpring.Store;

namespace RuddySpring.Server.Reasoning;

/// <summary>A temperature at a time.</summary>
/// <param name="Seconds">Since the lever moved.</param>
/// <param name="TemperatureC">degC.</param>
public sealed record TemperaturePoint(double Seconds, double TemperatureC);

/// <summary>Heat through a shot.</summary>
/// <param name="Group">Outside of the group; empty where nobody knows.</param>
/// <param name="GroupMeasured">Whether an instrument told it.</param>
/// <param name="Water">Water at the puck; empty where nobody knows.</param>
/// <param name="WaterMeasured">Whether an instrument told it.</param>
/// <param name="BandLowC">Lower end of where the group should be, degC; null on a machine without a boiler.</param>
/// <param name="BandHighC">Its upper end, degC.</param>
public sealed record ShotHeatView(
    IReadOnlyList<TemperaturePoint> Group,
    bool GroupMeasured,
    IReadOnlyList<TemperaturePoint> Water,
    bool WaterMeasured,
    double? BandLowC,
    double? BandHighC
);

/// <summary>The heat of group and water through a shot: what instruments recorded, else what its session makes of it.</summary>
public static class ShotHeatReader
{
    private const int MostPoints = 120;
    private const double SameShotSeconds = 120;
    private const double AfterSeconds = 30;
    private const double UsualShotSeconds = 45;

    /// <summary>Of a shot that is there; null where nothing is known.</summary>
    public static async Task<ShotHeatView?> OfAsync(RuddyContext db, int id, CancellationToken cancel)
    {
        var shot = await db
            .Shots.AsNoTracking()
            .Include(s => s.Machine)
            .Include(s => s.Trace)
            .SingleAsync(s => s.Id == id, cancel);
        var machine = shot.Machine!.Spec;
        var trace = ShotViews.TraceOf(shot);
        var start = shot.Trace.Moments.Start ?? 0;
        var group = Recorded(trace, Channel.Group, start);
        var water = Recorded(trace, Channel.Temperature, start);
        var (groupTold, waterTold) = (group.Count > 0, water.Count > 0);
        if ((!groupTold || !waterTold) && await ShotFactsReader.SessionOfAsync(shot, db, cancel) is { } session)
        {
            var at = (shot.PulledAt - session.OriginAt!.Value).TotalSeconds;
            var took = shot.Measures.SecondsFromLever ?? UsualShotSeconds;
            var run = SessionDesk.HeatAt(session, at + took + AfterSeconds, records: true);
            if (!groupTold && machine.HasBoiler)
                group =
                [
                    .. run
                        .Points.Where(p => p.Seconds >= at - 1 && p.Seconds <= at + took + AfterSeconds)
                        .Select(p => new TemperaturePoint(Math.Round(p.Seconds - at, 1), Math.Round(p.GroupC, 2))),
                ];
            if (!waterTold && run.Shots.MinBy(s => Math.Abs(s.AtSeconds - at)) is { } heat)
                water =
                    Math.Abs(heat.AtSeconds - at) < SameShotSeconds
                        ?
                        [
                            .. heat.Course.Points.Select(p => new TemperaturePoint(
                                Math.Round(p.Seconds, 1),
                                Math.Round(p.WaterC, 2)
                            )),
                        ]
                        : [];
        }

        if (water.Count == 0 && shot.WaterC is { } mean)
            water = [new(0, mean)];
        if (group.Count == 0 && shot.GroupC is { } leverUp)
            group = [new(0, leverUp)];
        GroupBand? band = machine.HasBoiler ? GroupBand.Of(HeatConstants.Of(machine)) : null;
        return group.Count + water.Count == 0
            ? null
            : new(Thinned(group), groupTold, Thinned(water), waterTold, band?.LowC, band?.HighC);
    }

    private static IReadOnlyList<TemperaturePoint> Recorded(Trace trace, Channel channel, double start) =>
        trace.Of(channel) is { Origin: not Origin.Assumed, Count: > 1 } series
            ?
            [
                .. series
                    .Seconds.Zip(series.Values)
                    .Where(p => p.First >= start - 1 && double.IsFinite(p.Second))
                    .Select(p => new TemperaturePoint(Math.Round(p.First - start, 1), Math.Round(p.Second, 2))),
            ]
            : [];

    private static IReadOnlyList<TemperaturePoint> Thinned(IReadOnlyList<TemperaturePoint> points)
    {
        var every = Math.Max(1, points.Count / MostPoints);
        return [.. points.Where((_, i) => i % every == 0)];
    }
}
