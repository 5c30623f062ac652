using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Coaching;

/// <summary>
/// Stands at the elbow during a pull: learns the puck from what the instruments say, follows the plan, and says what to hold, how
/// long it takes yet, when to stop, and what goes wrong. Times are s since the lever moved. Not safe for several threads at once.
/// </summary>
public sealed class LiveCoach
{
    /// <summary>Flow that most people hold once the stream runs, g/s (common practice: 1.3 to 1.6).</summary>
    public const double UsualFlowGramsPerS = 1.5;

    /// <summary>The most pressure that is ever advised, bar (common practice: 7 to 9, 10 at most).</summary>
    public const double MostAdvisedBar = 10;

    private const double LookEverySeconds = 0.25;
    private const double GaugeSilentSeconds = 1.5;
    private const double SureAfterDropsSeconds = 2.0;
    private const double GetsThereSeconds = 1.0;
    private const double LongestReadingSeconds = 0.2;
    private const double HoldToBar = 0.02;
    private const double HoldToGramsPerS = 0.004;
    private const int MostTrials = 12;

    private readonly PullPlan _plan;
    private readonly Machine _machine;
    private readonly double _yieldGrams;
    private readonly PuckWatch _watch;
    private readonly PlanFollower _follower;
    private readonly PlanDrive _assumed;
    private readonly Foresight _trouble;
    private readonly double _letGoSeconds;
    private RestOfPull? _rest;
    private double _lookedAt = double.NegativeInfinity;
    private int _lookedPhase;
    private double _gaugeAt = double.NegativeInfinity;
    private double _readAt = double.NegativeInfinity;
    private double _strokeFromMl;
    private int _stroke = 1;
    private bool _blonding;
    private bool _stop;

    /// <param name="expected">What is believed of the shot before it is pulled.</param>
    /// <param name="letGoSeconds">How long the hand goes on after the cue (<see cref="LetGo"/>), s.</param>
    public LiveCoach(PuckBelief expected, double letGoSeconds = LetGo.UsualSeconds)
    {
        _letGoSeconds = letGoSeconds;
        var shot = expected.Middle;
        (_plan, _machine, _yieldGrams) = (shot.Plan, shot.Machine, shot.YieldGrams);
        _watch = new PuckWatch(expected);
        var stroke = Strokes.VolumeMl(_machine);
        _follower = new(_plan, _yieldGrams, stroke);
        _assumed = new(new(_plan, _yieldGrams, stroke), _machine);
        _trouble = new(_plan, _machine, _yieldGrams, letGoSeconds);
    }

    /// <summary>A coach who has never seen a pull of this household.</summary>
    /// <param name="expected">The shot as the sheet has it.</param>
    /// <param name="sdLog">Standard deviation of the logarithm of its resistance, 0.05 to 1.</param>
    public LiveCoach(ShotConditions expected, double sdLog)
        : this(PuckBelief.Before(expected, sdLog)) { }

    /// <summary>What is known of the puck.</summary>
    public PuckWatch Watch => _watch;

    /// <summary>Index of the phase that is due; the number of phases once the yield is reached.</summary>
    public int PhaseIndex => _follower.PhaseIndex;

    /// <summary>The phase that is due, or null when the plan is done.</summary>
    public PullPhase? Phase => _follower.Phase;

    /// <summary>Whether first drops have been seen.</summary>
    public bool DropsSeen => _watch.FirstDropsSeconds is not null;

    /// <summary>Takes a pressure in bar.</summary>
    public void Pressure(double seconds, double bar)
    {
        _gaugeAt = seconds;
        _watch.Pressure(seconds, bar);
    }

    /// <summary>Takes what the scale shows in g, the cup tared out.</summary>
    public void Weight(double seconds, double grams)
    {
        PassTo(seconds);
        _watch.Weight(seconds, grams);
    }

    /// <summary>The brewer saw the first drops.</summary>
    public void Drops(double seconds)
    {
        PassTo(seconds);
        _watch.Drops(seconds);
    }

    /// <summary>The brewer saw the stream turn pale.</summary>
    public void Blonding() => _blonding = true;

    /// <summary>Pressure in bar that the plan wants now.</summary>
    public double TargetBar(double seconds)
    {
        PassTo(seconds);
        var before = _follower.Phase;
        var target = _follower.TargetBar(Now());
        if (_follower.Phase is { Move: PhaseMove.Lift })
        {
            if (before?.Move != PhaseMove.Lift && _watch.MovedMl > _strokeFromMl + 1)
                _stroke++;
            _strokeFromMl = _watch.MovedMl;
        }

        return target;
    }

    /// <summary>What to say now; the plan has been followed by <see cref="TargetBar"/>.</summary>
    public CoachReading Read(double seconds)
    {
        var target = TargetBar(seconds);
        // what was foreseen of one phase says nothing of the next
        if (seconds - _lookedAt >= LookEverySeconds || _lookedPhase != PhaseIndex)
        {
            (_lookedAt, _lookedPhase) = (seconds, PhaseIndex);
            _rest = RestOfPull.Of(_watch, _follower, _machine, _yieldGrams, _strokeFromMl, _letGoSeconds);
            _trouble.Look(seconds, _watch, _follower, _rest, _strokeFromMl, target);
        }

        var since = seconds - _lookedAt;
        // asked now and then, the cue would come half the time between two readings late
        var halfReading = Math.Clamp(seconds - _readAt, 0, LongestReadingSeconds) / 2;
        _readAt = seconds;
        _stop |= DropsSeen && _watch.CupGrams + _watch.DripAfterGrams(_letGoSeconds + halfReading) >= _yieldGrams;
        double? left =
            _stop ? 0
            : _rest?.StopSeconds is { } stop ? Math.Max(0, stop - since)
            : null;
        var wanted = WantedFlow();
        var reach = Math.Min(MostAdvisedBar, PressureLimit.MostBar(_machine, _watch.MovedMl - _strokeFromMl));
        var hold = DropsSeen && HoldBar(wanted) is { } holds && holds <= reach ? holds : (double?)null;
        var sure = DropsSeen && seconds - _watch.FirstDropsSeconds >= SureAfterDropsSeconds;
        var outOfReach = sure && hold is null;
        var chamber = Math.Max(1.0, Strokes.VolumeMl(_machine));
        var inStroke = _machine.PressureBy == PressureBy.Strokes ? _watch.MovedMl % chamber : _watch.MovedMl - _strokeFromMl;
        return new(
            wanted,
            hold,
            outOfReach,
            hold is { } bar && _machine.PressureBy == PressureBy.Arm
                ? Lever.HandForceKgf(_machine, Math.Clamp(bar, 0, 15))
                : null,
            left,
            _watch.CupGrams,
            Math.Max(0, _yieldGrams - _watch.CupGrams),
            _rest?.NextPhaseSeconds is { } next ? Math.Max(0, next - since) : null,
            Math.Clamp(inStroke / chamber, 0, 1),
            _machine.PressureBy == PressureBy.Strokes ? 1 + (int)(_watch.MovedMl / chamber) : _stroke,
            _watch.MovedMl,
            // a puck that was just learned again may have taken less than was thought
            Math.Max(0, _watch.MovedMl - _strokeFromMl),
            _stop
                ? new(AdviceKind.Stop, $"Stop now: {PullWords.LetGo(_machine)}. The last drops fall by themselves.")
                : _trouble.Advice
        );
    }

    /// <summary>
    /// Pressure in bar that, held from now on, gives a flow in g/s once a hand has got there, about a second later; null where
    /// none up to 12 bar does.
    /// </summary>
    public double? HoldBar(double gramsPerS)
    {
        double low = 0,
            high = PressureLimit.HighestBar,
            atLow = -gramsPerS;
        var atHigh = _watch.FlowAfter(GetsThereSeconds, high) - gramsPerS;
        if (atHigh < 0)
            return null;
        // false position (Illinois): the flow rises with the pressure, on a line that bends a little
        for (var i = 0; i < MostTrials && high - low > HoldToBar; i++)
        {
            var middle = low + ((high - low) * atLow / (atLow - atHigh));
            var at = _watch.FlowAfter(GetsThereSeconds, middle) - gramsPerS;
            if (Math.Abs(at) < HoldToGramsPerS)
                return middle;
            if (at < 0)
                (low, atLow, atHigh) = (middle, at, atHigh / 2);
            else
                (high, atHigh, atLow) = (middle, at, atLow / 2);
        }

        return low + ((high - low) * atLow / (atLow - atHigh));
    }

    private double WantedFlow() =>
        (
            _follower.Phase is { Move: PhaseMove.HoldFlow } due
                ? due
                : _plan.Phases.FirstOrDefault(p => p.Move == PhaseMove.HoldFlow)
        )?.FlowGramsPerS
        ?? UsualFlowGramsPerS;

    private PullState Now() =>
        new(
            _watch.Seconds,
            _watch.CupGrams,
            DropsSeen,
            _watch.FallingGramsPerS,
            _watch.MovedMl,
            _blonding,
            _watch.FirstDropsSeconds
        );

    /// <summary>Lets time pass; where no gauge tells, the hand is taken to follow the plan.</summary>
    private void PassTo(double seconds)
    {
        if (seconds - _gaugeAt > GaugeSilentSeconds)
        {
            // however often anyone looks, the hand goes on
            while (seconds - _watch.Seconds > 1e-6)
            {
                var step = Math.Min(0.05, seconds - _watch.Seconds);
                var at = _watch.Seconds + step;
                _watch.Pressure(at, _assumed.Next(Now() with { Seconds = at }, _watch.InflowMlPerS, step), measured: false);
            }
        }

        _watch.Advance(seconds);
    }
}
