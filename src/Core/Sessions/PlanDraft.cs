using System.Globalization;
using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;

namespace RuddySpring.Core.Sessions;

/// <summary>What both kinds of machine share: the run, the cursor in time, the steps.</summary>
internal abstract class PlanDraft
{
    protected const double PrepareSeconds = 40;
    protected const double FillSeconds = 60;

    protected readonly Machine Machine;
    protected readonly SessionWants Wants;
    protected readonly HeatRun Run;
    protected readonly double WaitSeconds;
    private readonly SessionBench _bench;
    private readonly Dictionary<string, DoneStep> _done;
    private readonly Dictionary<string, DoneStep> _underWay;
    private readonly List<SessionStep> _steps = [];
    private readonly HeatRun _now;

    protected PlanDraft(SessionBench bench, SessionWants wants, SessionProgress progress, HeatRun now, double waitSeconds)
    {
        (_bench, Wants, WaitSeconds) = (bench, wants, waitSeconds);
        Machine = bench.Machine;
        _done = progress.Done.GroupBy(d => d.Key).ToDictionary(g => g.Key, g => g.Last());
        _underWay = progress
            .UnderWay.Where(d => !_done.ContainsKey(d.Key))
            .GroupBy(d => d.Key)
            .ToDictionary(g => g.Key, g => g.Last());
        Run = now.Clone(records: true);
        _now = now;
        NowSeconds = progress.NowSeconds;
    }

    protected double NowSeconds { get; }

    protected double LastCup { get; set; }

    protected string? Problem { get; set; }

    protected List<string> Remedies { get; } = [];

    protected double Time => Run.Seconds;

    protected double KettleC => _bench.KettleC;

    protected SessionBench Bench => _bench;

    protected bool IsDone(string key) => _done.ContainsKey(key);

    protected bool IsUnderWay(string key) => _underWay.ContainsKey(key);

    protected IEnumerable<DoneStep> DoneSteps => _done.Values;

    /// <summary>Adds a step now and goes on to its end; hands-free steps may be gone on from by the caller instead.</summary>
    protected SessionStep Do(
        StepKind kind,
        string key,
        double seconds,
        string title,
        string detail,
        string? caution = null,
        int? pull = null,
        double grams = 0,
        double dose = 0,
        bool handsFree = false,
        bool advance = true
    )
    {
        var step = At(Time, kind, key, seconds, title, detail, caution, pull, grams, dose, handsFree);
        if (!_underWay.ContainsKey(key))
        {
            foreach (var e in step.HeatEvents(Machine, Wants, KettleC))
                Run.Add(e);
        }

        if (advance)
            Run.AdvanceTo(Math.Max(Time, step.EndSeconds));
        return step;
    }

    /// <summary>Adds a step at a time that has no heat of its own.</summary>
    protected SessionStep At(
        double start,
        StepKind kind,
        string key,
        double seconds,
        string title,
        string detail,
        string? caution = null,
        int? pull = null,
        double grams = 0,
        double dose = 0,
        bool handsFree = false
    )
    {
        // what has begun keeps its own times
        if (_underWay.TryGetValue(key, out var begun))
            (start, seconds) = (begun.StartSeconds, begun.EndSeconds - begun.StartSeconds);
        var step = new SessionStep(
            key,
            kind,
            start,
            seconds,
            title,
            detail,
            caution,
            handsFree,
            pull,
            Machine.HasBoiler || HeatConstants.Of(Machine).HeaterStepsC.Count > 0 ? Run.GroupC : null,
            grams,
            dose
        );
        _steps.Add(step);
        return step;
    }

    protected void Wait(double seconds) => Run.AdvanceTo(Time + Math.Max(0, seconds));

    protected IReadOnlyList<Drink> DrinksOf(int pull) =>
        [.. Wants.Drinks.Skip((pull - 1) * Wants.CupsAPull).Take(Wants.CupsAPull)];

    protected string ForWhom(int pull)
    {
        var names = string.Join(" and ", DrinksOf(pull).Select(d => d.For).Where(n => n.Length > 0));
        return names.Length > 0 ? $" for {names}" : "";
    }

    protected void Grind(int pull, double? at = null) =>
        At(
            at ?? Time,
            StepKind.Grind,
            $"grind-{pull}",
            Wants.GrindSeconds,
            $"Grind dose {pull}",
            string.Create(CultureInfo.InvariantCulture, $"Weigh {Wants.DoseGrams:0.0} g and grind it."),
            null,
            pull,
            0,
            Wants.DoseGrams
        );

    protected void Prepare(int pull, double? at = null) =>
        At(
            at ?? Time,
            StepKind.Prepare,
            $"prepare-{pull}",
            PrepareSeconds,
            $"Prepare puck {pull}",
            "Stir out clumps, level, tamp level, wipe the rim, lock in. Check that the screen is in and the holder fully seated.",
            "A holder that is not fully seated comes off under pressure.",
            pull,
            0,
            Wants.DoseGrams
        );

    protected SessionPlan Plan(WaterBudget water)
    {
        // never shown backwards: what goes on at the same time keeps the order in which it begins
        var steps = _steps
            .Where(s => !_done.ContainsKey(s.Key))
            .OrderBy(s => s.StartSeconds)
            .ThenBy(s => s.HandsFree ? 0 : 1)
            .ToArray();
        var start = steps.Length > 0 && _done.Count == 0 && _underWay.Count == 0 ? steps[0].StartSeconds : 0;
        if (LastCup == 0)
            LastCup = _done
                .Values.Where(d => d.Kind is StepKind.Shot or StepKind.Steam or StepKind.Froth)
                .Select(d => d.EndSeconds)
                .DefaultIfEmpty(NowSeconds)
                .Max();
        return new(steps, Run.Points, Run.Shots, start, LastCup, Time, Problem, Remedies, water, _now);
    }
}
