using System.Globalization;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;

namespace RuddySpring.Core.Coaching;

/// <summary>
/// Sees trouble coming in a pull: a stream that runs away, a puck finer or coarser than its plan, water that ends too soon, a
/// force or a loss of resistance that can hurt. What is said stays said for a few seconds, so that nobody is told two things at
/// once.
/// </summary>
/// <param name="plan">The plan.</param>
/// <param name="machine">The machine.</param>
/// <param name="yieldGrams">Yield, g.</param>
/// <param name="letGoSeconds">How long the hand goes on after the cue (<see cref="LetGo"/>), s.</param>
public sealed class Foresight(PullPlan plan, Machine machine, double yieldGrams, double letGoSeconds)
{
    // a cup so much shorter or longer is still the drink that was asked for
    private const double ShorterShare = 0.3;
    private const double LongerShare = 0.25;
    private const double StillOffSeconds = 1.0;
    private const double StaysSeconds = 5.0;
    private const double LookBackSeconds = 2.5;
    private const double RanAway = 0.32; // ln of how much easier water passes than it did
    private const double NoResistanceBar = 1.2;
    private const double GushingGramsPerS = 4.0;
    private const double SureSeconds = 3.0;

    private readonly Queue<(double Seconds, double LogFlow, double Bar)> _past = new();
    private CoachAdvice? _said;
    private double _until;
    private double _off;
    private bool _ran;

    private double YieldGrams => yieldGrams;

    private Machine Machine => machine;

    private double LetGoSeconds => letGoSeconds;

    /// <summary>What to say; null where all is well.</summary>
    public CoachAdvice? Advice { get; private set; }

    /// <summary>Looks again; about four times a second.</summary>
    public void Look(
        double seconds,
        PuckWatch watch,
        PlanFollower follower,
        RestOfPull rest,
        double strokeFromMl,
        double targetBar
    )
    {
        if (Danger(watch, follower, targetBar) is { } danger)
        {
            Advice = danger;
            return;
        }

        // what was said while nothing ran is over with the first drops
        var running = watch.FirstDropsSeconds is not null;
        if (running && !_ran)
            _said = null;
        _ran = running;
        var said = Channel(seconds, watch) ?? Grind(seconds, watch, follower, rest, strokeFromMl, targetBar);
        if (said is not null && (_said is null || seconds >= _until || said.Kind < _said.Kind))
            (_said, _until) = (said, seconds + StaysSeconds);
        if (seconds > _until)
            _said = null;
        Advice = _said;
    }

    /// <summary>What can hurt (common practice).</summary>
    private CoachAdvice? Danger(PuckWatch watch, PlanFollower follower, double targetBar)
    {
        if (
            machine.PressureBy == PressureBy.Arm
            && Lever.HandForceKgf(machine, Math.Clamp(watch.PressureBar, 0, 15)) > machine.WillingForceKgf * 1.15
        )
            return new(
                AdviceKind.Danger,
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"More force than the {Quantity.Kgf(machine.WillingForceKgf):0} you set: ease off, never force it. If "
                        + $"it does not move, stop and grind coarser."
                ),
                Math.Min(targetBar, Lever.PressureBar(machine, machine.WillingForceKgf))
            );
        if (follower.Phase is null or { Move: PhaseMove.Lift or PhaseMove.Rest })
            return null;
        var gushes = watch.FallingGramsPerS > GushingGramsPerS;
        var slack = watch.PressureBar < Math.Max(NoResistanceBar, targetBar * 0.5);
        if (!gushes || (!slack && machine.PressureBy != PressureBy.Spring))
            return null;
        return machine.PressureBy == PressureBy.Spring
            ? new(AdviceKind.Danger, "No resistance: the lever will fly up. Hand on it, face away, and let it up slowly.")
            : new(
                AdviceKind.Danger,
                "No resistance: the lever falls away. Stop pressing and hold the machine down; grind finer next time."
            );
    }

    private CoachAdvice? Channel(double seconds, PuckWatch watch)
    {
        if (watch.FirstDropsSeconds is not { } drops || seconds - drops < SureSeconds)
            return null;
        _past.Enqueue((seconds, -Math.Log(watch.ResistanceBarSPerMl), watch.PressureBar));
        while (_past.Count > 0 && seconds - _past.Peek().Seconds > LookBackSeconds)
            _past.Dequeue();
        var then = _past.Peek();
        if (seconds - then.Seconds < LookBackSeconds * 0.6 || watch.PressureBar > then.Bar + 0.7)
            return null;
        var rise = -Math.Log(watch.ResistanceBarSPerMl) - then.LogFlow;
        if (rise < RanAway)
            return null;
        var bar = Math.Max(1.5, HalfBars(watch.PressureBar * 0.65));
        return new(
            AdviceKind.Channel,
            FormattableString.Invariant(
                $"The stream ran away, a channel: pause for an instant, then hold {Quantity.Bar(bar):0.#}. Look for spurts."
            ),
            bar
        );
    }

    /// <summary>Finer or coarser than the plan wants, once the puck is known; and what lands it all the same.</summary>
    private CoachAdvice? Grind(
        double seconds,
        PuckWatch watch,
        PlanFollower follower,
        RestOfPull rest,
        double strokeFromMl,
        double targetBar
    )
    {
        var lands = plan.LandingSeconds;
        if (watch.FirstDropsSeconds is not { } drops)
        {
            var latest = lands.High * 0.32;
            return seconds > latest && follower.Phase is not null
                ? new(
                    AdviceKind.TooFine,
                    "No drops yet: the grind is on the fine side. Stay in pre-infusion; the puck softens as it stands.",
                    targetBar
                )
                : null;
        }

        if (seconds - drops < SureSeconds || follower.Phase is null)
            return null;
        if (rest.PlanEnds)
            return null;
        if (rest.WaterEnds && rest.CupGrams < yieldGrams - 1)
            return new(
                AdviceKind.WaterEnds,
                FormattableString.Invariant($"The water ends at about {rest.CupGrams:0} g: take the cup away there.")
            );
        var total = rest.StopSeconds is { } left ? seconds + left : seconds + 120;
        var off =
            total > lands.High + 1 ? 1
            : total < lands.Low - 1 ? -1
            : 0;
        _off =
            off == 0 ? 0
            : off == Math.Sign(_off) ? _off + off
            : off;
        if (Math.Abs(_off) < 4)
            return null;
        if (total - seconds < 4)
            return null; // too late to change anything
        if (follower.Phase.Move == PhaseMove.HoldFlow)
            return null; // who holds the flow has chosen it over the time
        var ahead = new Rest(this, seconds, watch, follower, strokeFromMl);
        var edge = off > 0 ? lands.High : lands.Low;
        // a spring gives what it gives: only the cup is left to change
        if (machine.PressureBy == PressureBy.Spring && off > 0)
            return ahead.YieldToLand(1, edge, off) is { } shorter
                ? new(
                    AdviceKind.TooFine,
                    FormattableString.Invariant(
                        $"Finer than the plan, about {total:0} s, and a spring cannot press harder: stop at {shorter:0} g."
                    ),
                    null,
                    shorter
                )
                : null;
        var most = Math.Min(LiveCoach.MostAdvisedBar, PressureLimit.MostBar(machine, watch.MovedMl - strokeFromMl));
        var bar = Math.Min(most, HalfBars(targetBar * ahead.FactorToLand(edge, off)));
        // where the pressure alone does not land it, the cup is moved with it
        var stop = ahead.YieldToLand(bar / Math.Max(0.5, targetBar), edge + (off * StillOffSeconds), off);
        var and = stop is { } grams ? FormattableString.Invariant($", and {(off > 0 ? "stop at" : "go on to")} {grams:0} g") : "";
        var harder = machine.PressureBy == PressureBy.Arm ? "press to" : "go up to"; // a spring was never asked for more
        var gentler = machine.PressureBy switch
        {
            PressureBy.Arm => "go gently, hold",
            PressureBy.Spring => "hold the lever back to",
            _ => "slower strokes, hold",
        };
        return off > 0
            ? new(
                AdviceKind.TooFine,
                FormattableString.Invariant(
                    $"Finer than the plan, about {total:0} s: {harder} {Quantity.Bar(bar):0.#} as far as it goes easily{and}."
                ),
                bar,
                stop
            )
            : new(
                AdviceKind.TooCoarse,
                FormattableString.Invariant($"Coarser than the plan, about {total:0} s: {gentler} {Quantity.Bar(bar):0.#}{and}."),
                bar,
                stop
            );
    }

    /// <summary>No hand holds a pressure nearer than that.</summary>
    private static double HalfBars(double bar) => Math.Round(bar * 2) / 2;

    /// <summary>The rest of this pull, as it would be with another pressure or another cup.</summary>
    private sealed class Rest(Foresight of, double seconds, PuckWatch watch, PlanFollower follower, double strokeFromMl)
    {
        /// <summary>The factor on the plan's pressures that ends the pull at a time in s since the lever moved.</summary>
        public double FactorToLand(double atSeconds, int off)
        {
            double low = off > 0 ? 1 : 0.4,
                high = off > 0 ? 1.5 : 1;
            for (var i = 0; i < 5; i++)
            {
                var middle = (low + high) / 2;
                if (Total(middle, of.YieldGrams) > atSeconds)
                    low = middle;
                else
                    high = middle;
            }

            return (low + high) / 2;
        }

        /// <summary>
        /// The cup, g, that ends the pull at a time in s with the pressures at a factor; null where the yield itself does, or
        /// where no cup that is still the same drink would.
        /// </summary>
        public double? YieldToLand(double factor, double atSeconds, int off)
        {
            bool Misses(double grams) => off > 0 ? Total(factor, grams) > atSeconds : Total(factor, grams) < atSeconds;
            if (!Misses(of.YieldGrams))
                return null;
            double near = 1,
                far = off > 0 ? 1 - ShorterShare : 1 + LongerShare;
            if (of.YieldGrams * far < watch.CupGrams + 2 || Misses(of.YieldGrams * far))
                return null;
            for (var i = 0; i < 4; i++)
            {
                var middle = (near + far) / 2;
                if (Misses(of.YieldGrams * middle))
                    near = middle;
                else
                    far = middle;
            }

            return Math.Round(of.YieldGrams * far);
        }

        private double Total(double factor, double grams) =>
            seconds
            + (RestOfPull.Of(watch, follower, of.Machine, grams, strokeFromMl, of.LetGoSeconds, factor, 90).StopSeconds ?? 999);
    }
}
