using System.Globalization;
using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Water;

namespace RuddySpring.Core.Sessions;

/// <summary>Where a session stands.</summary>
/// <param name="NowSeconds">Now, s since the session's start.</param>
/// <param name="Done">What was done or skipped so far.</param>
/// <param name="Readings">What was read so far.</param>
/// <param name="UnderWay">Steps that were begun and not ended, with the end they are expected to have.</param>
public sealed record SessionProgress(
    double NowSeconds,
    IReadOnlyList<DoneStep> Done,
    IReadOnlyList<HeatReading> Readings,
    IReadOnlyList<DoneStep> UnderWay
)
{
    /// <summary>Nothing done yet.</summary>
    public static readonly SessionProgress None = new(0, [], [], []);

    /// <summary>What the machine's heat has been through: everything done or begun, and every reading.</summary>
    public HeatLog Heat(SessionBench bench, SessionWants wants)
    {
        var ended = Done.Select(d => d.Key).ToHashSet();
        var steps = Done.Concat(UnderWay.Where(d => !ended.Contains(d.Key))).GroupBy(d => d.Key).Select(g => g.Last());
        return new(
            [.. steps.SelectMany(d => SessionStep.HeatEvents(bench.Machine, wants, bench.KettleC, d))],
            Readings,
            bench.AmbientC,
            bench.AltitudeMetres
        );
    }
}

/// <summary>The machine that a session runs on, and where it stands.</summary>
public sealed record SessionBench(Machine Machine, double AmbientC, double AltitudeMetres)
{
    /// <summary>A kettle at its boiling point here, degC.</summary>
    public double KettleC { get; } = Saturation.BoilingPointC(AltitudeMetres);

    /// <summary>Steam in g that warms the milk of drinks; 0 without a boiler.</summary>
    public double SteamGrams(IEnumerable<Drink> drinks) =>
        Machine.BoilerGaugeBar is { } gauge
            ? drinks.Sum(d => d.Order().SteamGrams(Saturation.BoilerTemperatureC(gauge, AltitudeMetres)))
            : 0;
}

/// <summary>
/// Plans a session from switch-on to last rinse by playing it through the heat model: every shot with the group in its band,
/// cloths or rests where it would leave it, grinding in the waits, steam, water never short. Drinks are made in the order in
/// which they are asked for; among a few depths of cooling it takes the one that is over first.
/// </summary>
public sealed class SessionPlanner(SessionBench bench)
{
    private const double LateAfterSeconds = 45;

    /// <summary>Plans, or re-plans from what really happened.</summary>
    /// <param name="wants">What is wanted.</param>
    /// <param name="readySeconds">When the last drink should be ready, s since the session's start; null for as soon as can
    /// be.</param>
    /// <param name="progress">Where the session stands.</param>
    /// <exception cref="FieldRangeException">A number is out of range.</exception>
    public SessionPlan Plan(SessionWants wants, double? readySeconds, SessionProgress progress)
    {
        wants.Checked();
        var now = progress.Heat(bench, wants).Play(bench.Machine, progress.NowSeconds);
        var plan = Best(wants, progress, now, 0);
        var begun =
            progress.Done.Any(d => !d.Skipped && d.Kind is not StepKind.Fill and not StepKind.Grind)
            || progress.UnderWay.Count > 0;
        if (readySeconds is { } ready)
        {
            var early = ready - plan.LastCupSeconds;
            if (early > 0 && !begun)
                plan = Shift(plan, early, progress.NowSeconds);
            else if (early > LateAfterSeconds && !progress.Done.Any(d => d.Kind == StepKind.Shot))
                plan = Best(wants, progress, now, early);
            if (plan.Problem is null && plan.LastCupSeconds > ready + LateAfterSeconds)
                plan = Late(plan, wants, ready, progress, now);
        }

        return plan;
    }

    private SessionPlan Best(SessionWants wants, SessionProgress progress, HeatRun now, double waitSeconds)
    {
        var first = Draft(wants, progress, now, waitSeconds, 1.0);
        if (!first.Steps.Any(s => s.Kind is StepKind.Cloth or StepKind.Rest))
            return first;
        // cooled deeper, more shots fit before the next rest; which is quicker depends on how many are left
        var band = GroupBand.Of(HeatConstants.Of(bench.Machine));
        return new[] { 1.0, 0.25 * band.WidthK, 0.5 * band.WidthK }
            .Select(under => under == 1.0 ? first : Draft(wants, progress, now, waitSeconds, under))
            .OrderBy(p => p.Problem is null ? 0 : 1)
            .ThenBy(p => p.LastCupSeconds)
            .First();
    }

    private SessionPlan Draft(SessionWants wants, SessionProgress progress, HeatRun now, double waitSeconds, double coolUnderK) =>
        bench.Machine.HasBoiler
            ? new BoilerSession(bench, wants, progress, now, waitSeconds, coolUnderK).Make()
            : new KettleSession(bench, wants, progress, now, waitSeconds).Make();

    /// <summary>A plan that has not begun, later by some seconds.</summary>
    private static SessionPlan Shift(SessionPlan plan, double seconds, double now) =>
        plan with
        {
            Steps = [.. plan.Steps.Select(s => s with { StartSeconds = s.StartSeconds + seconds })],
            Course = [.. plan.Course.Select(p => p.Seconds <= now ? p : p with { Seconds = p.Seconds + seconds })],
            Shots = [.. plan.Shots.Select(s => s with { AtSeconds = s.AtSeconds + seconds })],
            StartSeconds = plan.StartSeconds + seconds,
            LastCupSeconds = plan.LastCupSeconds + seconds,
            EndSeconds = plan.EndSeconds + seconds,
        };

    private SessionPlan Late(SessionPlan plan, SessionWants wants, double ready, SessionProgress progress, HeatRun now)
    {
        var late = plan.LastCupSeconds - ready;
        var remedies = new List<string> { $"Serve {Minutes(late)} later: everything is then ready." };
        if (!wants.Cloth && plan.Steps.Any(s => s.Kind == StepKind.Rest))
        {
            var clothed = Best(wants with { Cloth = true }, progress, now, 0);
            if (clothed.LastCupSeconds < plan.LastCupSeconds - LateAfterSeconds)
                remedies.Add(
                    $"Allow a cold wet cloth instead of rests: {Minutes(plan.LastCupSeconds - clothed.LastCupSeconds)} sooner."
                );
        }

        for (var drinks = wants.Drinks.Count - 1; drinks >= 1; drinks--)
        {
            var fewer = Best(wants with { Drinks = [.. wants.Drinks.Take(drinks)] }, progress, now, 0);
            if (fewer.LastCupSeconds > ready + LateAfterSeconds)
                continue;
            remedies.Add(
                drinks == 1 ? "Make one drink: that is ready in time." : $"Make {drinks} drinks: those are ready in time."
            );
            break;
        }

        if (wants.SpareBaskets == 0 && wants.Pulls > 1)
        {
            var spare = Best(wants with { SpareBaskets = wants.Pulls - 1 }, progress, now, 0);
            if (spare.LastCupSeconds < plan.LastCupSeconds - LateAfterSeconds)
                remedies.Add($"Fill spare baskets while it warms: {Minutes(plan.LastCupSeconds - spare.LastCupSeconds)} sooner.");
        }

        return plan with
        {
            Problem = $"The last drink is ready {Minutes(late)} after the time you asked for.",
            Remedies = remedies,
        };
    }

    private static string Minutes(double seconds) =>
        string.Create(CultureInfo.InvariantCulture, $"{Math.Max(1, Math.Ceiling(seconds / 60 - 0.01)):0} min");
}
