using RuddySpring.Core.Coaching;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Tests.SecondWorld;

/// <summary>What the three pulls before a trial told of the instruments.</summary>
public enum PathKnown
{
    /// <summary>Neither scale nor holder was ever used.</summary>
    Nothing,

    /// <summary>The holder was, over another scale.</summary>
    Holder,

    /// <summary>Both were.</summary>
    Both,
}

/// <summary>A coached pull in a world, after three pulls of the same coffee: what he said, beside what truly was.</summary>
/// <param name="Hold">Pressure that he said holds the wanted flow, over the true one, less 1; null where 10 bar do not hold
/// it.</param>
/// <param name="TrueHoldBar">The true one.</param>
/// <param name="OffCupGrams">Cup when let go on the cue, less the yield.</param>
/// <param name="OffDelays">Logarithm of his spout's and scale's delays together over the true ones.</param>
/// <param name="SaidAt">When he was asked: two seconds after he had seen first drops.</param>
/// <param name="Pressures">What the gauge had said by then.</param>
/// <param name="Weights">What the scale had said by then.</param>
public sealed record CoachTrial(
    double? Hold,
    double? TrueHoldBar,
    double OffCupGrams,
    double OffDelays,
    double SaidAt,
    IReadOnlyList<(double At, double Bar)> Pressures,
    IReadOnlyList<(double At, double Grams)> Weights
)
{
    /// <summary>What a dialled-in grind is usually off by: standard deviation of its logarithm.</summary>
    public const double GrindSd = 0.12;

    private const double Dose = 15;
    private const double Yield = 32;
    private const double WaterC = 90;
    public const double WantedGramsPerS = 1.3;
    private static readonly Machine Machine = FamilyDefaults.Of(MachineFamily.PortableLever).Machine;
    private static readonly PullPlan Plan = ShippedPlans.EarlyPeak;

    /// <summary>What is known, as a person says it.</summary>
    public static string Words(PathKnown known) =>
        known switch
        {
            PathKnown.Both => "scale and holder known from three pulls",
            PathKnown.Holder => "scale never seen, holder known from three pulls on another one",
            _ => "neither scale nor holder ever seen",
        };

    /// <summary>The sheet.</summary>
    public static ShotConditions Sheet => ShotConditions.Of(Machine, Plan, Dose, Yield, WaterC);

    /// <summary>What a household has learned from three pulls: the puck to expect, and its spout and scale.</summary>
    private static (PuckBelief Expected, double LetGoSeconds) Learn(IHousehold house, ulong seed, PathKnown known)
    {
        if (known == PathKnown.Holder)
            house = house.OnScale(0.2 + (0.6 * new SeededRandom((seed * 31) + 5).Uniform()));
        List<double> logs = [];
        PuckBelief? belief = null;
        List<double> letGo = [];
        for (ulong n = 0; n < 3; n++)
        {
            var (trace, cued, _) = World.Record(house.Pull(Sheet, 1, (seed * 1000) + n), Yield);
            var read = MeasureShot.Read(trace, Moments.None, Dose, WaterC);
            if (read.Measures.R10 is not { } r10)
                continue;
            if (LetGo.Seconds(trace.Of(Channel.Pressure)!, cued) is { } seconds)
                letGo.Add(seconds);
            logs.Add(Math.Log(GrindResistivity.Of(r10, Dose, Sheet.Bed.Basket)));
            var before = GrindResistivity.With(Sheet, Math.Exp(logs[^1]));
            var told = PuckReadBack.Of(
                belief is null ? PuckBelief.Before(before, 0.3) : belief.Next(before, 0.3),
                trace,
                read,
                PuckReadBack.ForTheNextPull
            );
            if (told is not null)
                belief = told.After;
        }

        var expected = belief!.Next(GrindResistivity.With(Sheet, Math.Exp(logs.Average())), 0.15);
        return (
            known switch
            {
                PathKnown.Both => expected,
                PathKnown.Holder => expected.WithPath(
                    CupPathBelief.Unknown with
                    {
                        Spout = PuckMemory.Of(expected).LearnedPath.Spout,
                    }
                ),
                _ => expected.WithPath(CupPathBelief.Unknown),
            },
            LetGo.Expected(letGo)
        );
    }

    /// <summary>Plays one; null where he never said stop.</summary>
    /// <param name="world">The world.</param>
    /// <param name="seed">Of household and pull.</param>
    /// <param name="known">Which of spout and scale the three pulls before were on.</param>
    public static CoachTrial? Of(World world, ulong seed, PathKnown known)
    {
        var house = world.Household(seed);
        var (expected, letGo) = Learn(house, seed, known);
        var random = new SeededRandom(seed + 77);
        // today's grind is off by what a dialled-in grind is usually off by
        var pull = house.Pull(Sheet, Math.Exp(random.Normal(GrindSd)), (seed * 1000) + 500);
        var coach = new LiveCoach(expected, letGo);
        double? seen = null,
            hold = null,
            truth = null,
            saidAt = null,
            stopped = null;
        List<(double, double)> pressures = [],
            weights = [];
        for (var step = 1; step < 15_000; step++)
        {
            var t = step * World.StepSeconds;
            if (t > stopped + World.ReactsSeconds)
                pull.LetGo();
            pull.Step(t);
            if (step % World.GaugeSteps == 0)
            {
                var bar = pull.Gauge();
                coach.Pressure(t, bar);
                if (saidAt is null)
                    pressures.Add((t, bar));
            }

            if (step % World.ScaleSteps == 0)
            {
                var grams = pull.Scale();
                coach.Weight(t, grams);
                if (saidAt is null)
                    weights.Add((t, grams));
            }

            if (step % 5 != 0)
                continue;
            var said = coach.Read(t);
            if (coach.DropsSeen)
                seen ??= t;
            if (saidAt is null && seen is { } drops && t >= drops + 2)
            {
                (saidAt, truth) = (t, HoldBar(pull.FlowSoon));
                if (truth is <= 10 && coach.HoldBar(WantedGramsPerS) is { } told)
                    hold = (told / truth.Value) - 1;
            }

            if (said.Advice is { Kind: AdviceKind.Stop } && stopped is null)
            {
                stopped = t;
            }

            if (stopped is { } at && t > at + 6)
                break;
        }

        var path = coach.Watch.Path;
        return stopped is null || saidAt is null
            ? null
            : new(
                hold,
                truth,
                pull.CupGrams - Yield,
                Math.Log((path.SpoutDelaySeconds + path.ScaleLagSeconds) / (house.SpoutSeconds + house.ScaleSeconds)),
                saidAt.Value,
                pressures,
                weights
            );
    }

    /// <summary>The pressure in bar at which a flow that rises with it is the wanted one; null where 12 bar do not give
    /// it.</summary>
    public static double? HoldBar(Func<double, double> flowSoon)
    {
        double low = 0,
            high = 12;
        if (flowSoon(high) < WantedGramsPerS)
            return null;
        for (var i = 0; i < 16; i++)
        {
            var middle = (low + high) / 2;
            if (flowSoon(middle) < WantedGramsPerS)
                low = middle;
            else
                high = middle;
        }

        return low;
    }
}
