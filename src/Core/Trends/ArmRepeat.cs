using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Trends;

/// <summary>How a phase of a plan came out over the last pulls.</summary>
/// <param name="Name">The plan's word for it.</param>
/// <param name="OffBar">Mean pressure less plan, bar.</param>
/// <param name="SpreadBar">Standard deviation of that from pull to pull, bar.</param>
/// <param name="InsideShare">Share of the time inside the plan's band, 0 to 1.</param>
/// <param name="EarlierOffBar">How far it was off in the earlier half of the pulls, without its sign, bar.</param>
/// <param name="LaterOffBar">And in the later half, bar.</param>
/// <param name="Pulls">How many reached it.</param>
public sealed record PhaseRepeat(
    string Name,
    double OffBar,
    double SpreadBar,
    double InsideShare,
    double EarlierOffBar,
    double LaterOffBar,
    int Pulls
);

/// <summary>Pressure at a time over the last pulls.</summary>
/// <param name="Seconds">Since the lever moved.</param>
/// <param name="LowBar">One in ten lies below.</param>
/// <param name="MiddleBar">The middle.</param>
/// <param name="HighBar">One in ten lies above.</param>
public sealed record PressureBand(double Seconds, double LowBar, double MiddleBar, double HighBar);

/// <summary>A pull of the plan, as far as the arm is concerned.</summary>
/// <param name="Clean">Its trace, since the lever moved.</param>
/// <param name="Moments">Likewise.</param>
/// <param name="YieldGrams">Yield, g.</param>
/// <param name="CupGrams">What was in the cup, g; null where nobody knows.</param>
public sealed record ArmPull(CleanTrace Clean, Moments Moments, double YieldGrams, double? CupGrams);

/// <summary>How repeatable an arm is on a plan.</summary>
/// <param name="Phases">Phase by phase.</param>
/// <param name="Band">Of the pressure, eight pulls in ten.</param>
/// <param name="OffBar">Mean distance from the plan of each pull, bar, oldest first.</param>
/// <param name="CupOffGrams">Cup less yield of each pull that tells, g, oldest first.</param>
/// <param name="LessonKey">The lesson that would help most; null where the arm is steady.</param>
/// <param name="Sentence">What is to be said of it.</param>
public sealed record ArmRepeat(
    IReadOnlyList<PhaseRepeat> Phases,
    IReadOnlyList<PressureBand> Band,
    IReadOnlyList<double> OffBar,
    IReadOnlyList<double> CupOffGrams,
    string? LessonKey,
    string Sentence
)
{
    /// <summary>Fewest pulls that say anything.</summary>
    public const int Fewest = 3;

    /// <summary>The most that are looked at.</summary>
    public const int Most = 30;
    private const double EverySeconds = 0.5;
    private const double LongestSeconds = 120;
    private const double CupOffMatters = 1.5;
    private const double Better = 0.7;

    /// <summary>Of pulls of one plan on one machine, oldest first; null where fewer than <see cref="Fewest"/> tell.</summary>
    public static ArmRepeat? Of(PullPlan plan, IReadOnlyList<ArmPull> pulls)
    {
        var told = pulls
            .Select(p => (Pull: p, Distance: PlanDistance.Of(plan, p.YieldGrams, p.Clean, p.Moments)))
            .Where(p => p.Distance is { Phases.Count: > 0 })
            .TakeLast(Most)
            .ToList();
        if (told.Count < Fewest)
            return null;
        var phases = plan
            .Phases.Select(
                (phase, i) => Phase(phase.Name, [.. told.Select(t => In(plan, i, t.Distance!)).OfType<PhaseDistance>()])
            )
            .OfType<PhaseRepeat>()
            .ToList();
        var cups = told.Where(t => t.Pull.CupGrams is not null).Select(t => t.Pull.CupGrams!.Value - t.Pull.YieldGrams).ToList();
        var (lesson, sentence) = Said(plan, phases, cups);
        return new(
            phases,
            BandOf([.. told.Select(t => t.Pull)]),
            [.. told.Select(t => t.Distance!.Phases.Average(p => Math.Abs(p.OffBar)))],
            cups,
            lesson,
            sentence
        );
    }

    /// <summary>A phase of the plan in a pull: of those of its name as many along as in the plan; null where it was not
    /// reached.</summary>
    private static PhaseDistance? In(PullPlan plan, int phase, PlanDistance pull)
    {
        var name = plan.Phases[phase].Name;
        return pull.Phases.Where(p => p.Name == name).ElementAtOrDefault(plan.Phases.Take(phase).Count(p => p.Name == name));
    }

    private static PhaseRepeat? Phase(string name, IReadOnlyList<PhaseDistance> of)
    {
        if (of.Count < Fewest)
            return null;
        var mean = of.Average(d => d.OffBar);
        var half = of.Count / 2;
        return new(
            name,
            mean,
            Math.Sqrt(of.Sum(d => (d.OffBar - mean) * (d.OffBar - mean)) / (of.Count - 1)),
            of.Average(d => d.InsideShare),
            of.Take(half).Average(d => Math.Abs(d.OffBar)),
            of.Skip(of.Count - half).Average(d => Math.Abs(d.OffBar)),
            of.Count
        );
    }

    /// <summary>Quantiles of the pressure at even times, as far as half of the pulls go.</summary>
    private static List<PressureBand> BandOf(IReadOnlyList<ArmPull> pulls)
    {
        var band = new List<PressureBand>();
        for (var at = 0.0; at <= LongestSeconds; at += EverySeconds)
        {
            var bars = pulls
                .Where(p => p.Moments.Stop is { } stop && at <= stop)
                .Select(p =>
                    p.Clean.PressureBar[Math.Min(p.Clean.PressureBar.Length - 1, (int)Math.Round(at / p.Clean.StepSeconds))]
                )
                .Order()
                .ToList();
            if (bars.Count * 2 < pulls.Count || bars.Count < Fewest)
                break;
            band.Add(new(at, Quantile(bars, 0.1), Quantile(bars, 0.5), Quantile(bars, 0.9)));
        }

        return band;
    }

    private static double Quantile(List<double> sorted, double share)
    {
        var at = share * (sorted.Count - 1);
        var low = (int)at;
        return low + 1 < sorted.Count ? sorted[low] + ((at - low) * (sorted[low + 1] - sorted[low])) : sorted[low];
    }

    private static (string? Lesson, string Sentence) Said(PullPlan plan, List<PhaseRepeat> phases, List<double> cups)
    {
        var cupOff = cups.Count >= Fewest ? cups.Average(Math.Abs) : 0;
        var worst = phases.MaxBy(p => Math.Abs(p.OffBar) + p.SpreadBar);
        var off = worst is null ? 0 : Math.Abs(worst.OffBar) + worst.SpreadBar;
        var gained = phases.Where(p => p.LaterOffBar < Better * p.EarlierOffBar && p.EarlierOffBar > plan.BandBar / 2).ToList();
        var better = gained.Count > 0 ? $" {Named(gained[0].Name)} came closer to the plan over these pulls." : "";
        if (off <= plan.BandBar && cupOff <= CupOffMatters)
            return (null, $"The arm is steady: every phase lies in the plan's band.{better}");
        if (cupOff > CupOffMatters && off <= 2 * plan.BandBar)
            return (
                "stop-gram",
                FormattableString.Invariant(
                    $"The cup is off by {cupOff:0.0} g on average: practise stopping on the gram.{better}"
                )
            );
        var how =
            worst!.SpreadBar > Math.Abs(worst.OffBar)
                ? FormattableString.Invariant($"differs by {Quantity.Bar(worst.SpreadBar):0.0} from pull to pull")
                : FormattableString.Invariant(
                    $"is {Quantity.Bar(Math.Abs(worst.OffBar)):0.0} {(worst.OffBar > 0 ? "above" : "below")} the plan"
                );
        return (Lesson(plan, worst.Name), $"{Named(worst.Name)} {how}: that is where practice would help most.{better}");
    }

    private static string Named(string phase) => $"\u201c{char.ToUpperInvariant(phase[0])}{phase[1..]}\u201d";

    private static string Lesson(PullPlan plan, string phase)
    {
        var named = plan.Phases.First(p => p.Name == phase);
        return named.Move switch
        {
            PhaseMove.HoldFlow => "hold-flow",
            PhaseMove.Lift => "half-pulls",
            _ when phase.Contains("ramp", StringComparison.OrdinalIgnoreCase) => "ramp-5",
            _ when phase.Contains("ease", StringComparison.OrdinalIgnoreCase) => "hold-flow",
            _ when named.Ending == PhaseEnding.FirstDrops => "first-drops",
            _ when named.Ending == PhaseEnding.Strokes => "pump-rest",
            _ => "hold-3",
        };
    }
}
