using RuddySpring.Core;
using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Sessions;
using RuddySpring.Core.Water;
using RuddySpring.Store.Entities;

namespace RuddySpring.Store.Demo;

/// <summary>The hut's mornings at the window dipper, made up: planned by the core, read with a strip, its metal not quite the
/// family's.</summary>
internal static class HutSessions
{
    private const int Mornings = 3;
    private const double RoomC = 18;
    private const double AltitudeMetres = 1640;

    // the truth behind the dipper, which its owner has yet to learn
    private const double TrueLoss = 1.18;
    private const double TrueFlange = 0.93;

    /// <summary>The small boiler lever as the household has entered it.</summary>
    public static Machine DipperAsKnown { get; } =
        FamilyDefaults.Of(MachineFamily.BoilerDirect).Machine with
        {
            Reads = [Reads.Strip, Reads.Lamp, Reads.Scale],
            Lamp = LampMeans.Heating,
        };

    /// <summary>The spring machine as the household has entered it.</summary>
    public static Machine SpringAsKnown { get; } =
        FamilyDefaults.Of(MachineFamily.BoilerSpring).Machine with
        {
            Reads = [Reads.Gauge, Reads.BoilerGauge, Reads.Lamp, Reads.Scale],
            Lamp = LampMeans.Ready,
        };

    /// <summary>Adds the mornings.</summary>
    public static void Fill(RuddyContext context, BenchMachine dipper, SeededRandom random, DateTime nowUtc)
    {
        var (_, dose, yield) = FamilyDefaults.Of(MachineFamily.BoilerDirect);
        for (var day = Mornings; day >= 1; day--)
        {
            var wants = new SessionWants
            {
                Drinks = [new("Tomo", 0), new("Ilva", day == 1 ? 150 : 0)],
                DoseGrams = dose,
                YieldGrams = yield,
                GrindSeconds = 45,
            };
            var plan = new SessionPlanner(new(DipperAsKnown, RoomC, AltitudeMetres)).Plan(wants, null, SessionProgress.None);
            var done = plan
                .Steps.Select(s => new DoneStep(s.Key, s.Kind, s.StartSeconds, s.EndSeconds, false, s.Grams, s.DoseGrams))
                .ToArray();
            context.Sessions.Add(
                new Session
                {
                    Machine = dipper,
                    CreatedAt = nowUtc.Date.AddDays(-day * 2).AddHours(4),
                    OriginAt = nowUtc.Date.AddDays(-day * 2).AddHours(4),
                    EndedAt = nowUtc.Date.AddDays(-day * 2).AddHours(4).AddSeconds(plan.EndSeconds),
                    AmbientC = RoomC,
                    AltitudeMetres = AltitudeMetres,
                    Wants = wants,
                    Log = new() { Done = done, Readings = Read(wants, done, plan.EndSeconds, random) },
                }
            );
        }
    }

    private static List<HeatReading> Read(SessionWants wants, DoneStep[] done, double untilSeconds, SeededRandom random)
    {
        var constants = HeatConstants.Of(DipperAsKnown);
        var truth = DipperAsKnown with
        {
            Heat = constants with
            {
                GroupAmbientWPerK = constants.GroupAmbientWPerK * TrueLoss,
                BoilerGroupWPerK = constants.BoilerGroupWPerK * TrueFlange,
            },
        };
        var kettle = Saturation.BoilingPointC(AltitudeMetres);
        var run = new HeatRun(truth, RoomC, AltitudeMetres, records: false);
        foreach (var e in done.SelectMany(d => SessionStep.HeatEvents(truth, wants, kettle, d)))
            run.Add(e);
        var readings = new List<HeatReading>();
        for (var at = 420.0; at < untilSeconds; at += 300)
        {
            run.AdvanceTo(at);
            var value = run.GroupC + random.Normal(HeatReading.SeatingK);
            readings.Add(new(HeatReadingKind.Strip, at, Math.Round(value / HeatReading.StripStepK) * HeatReading.StripStepK));
        }

        return readings;
    }
}
