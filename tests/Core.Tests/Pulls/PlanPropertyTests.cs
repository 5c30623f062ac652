using CsCheck;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Tests.Pulls;

/// <summary>What holds for every shipped plan on every machine that it suits.</summary>
public sealed class PlanPropertyTests
{
    private static readonly (Machine Machine, PullPlan Plan, double Dose, double Yield)[] Pairs =
    [
        .. from start in FamilyWords.StartingPoints
        from plan in ShippedPlans.All
        where plan.Suits(start.Defaults)
        select (start.Defaults, plan, start.DoseGrams, start.YieldGrams),
    ];

    private static readonly Gen<int> Which = Gen.Int[0, Pairs.Length - 1];

    private static PuckParameters Puck((Machine Machine, PullPlan Plan, double Dose, double Yield) pair, double resistance) =>
        new()
        {
            DoseGrams = pair.Dose,
            ResistanceBarSPerMl = resistance,
            RestrictorBarS2PerMl2 = pair.Machine.RestrictorBarS2PerMl2,
        };

    [Fact]
    public void A_finer_puck_never_comes_sooner_under_any_plan() =>
        Gen.Select(Which, Gen.Double[2, 8], Gen.Double[1.02, 1.6])
            .Sample(
                (which, resistance, finer) =>
                {
                    var pair = Pairs[which];
                    var coarse = PuckShots.Run(Puck(pair, resistance), pair.Plan, pair.Machine, pair.Yield);
                    var fine = PuckShots.Run(Puck(pair, resistance * finer), pair.Plan, pair.Machine, pair.Yield);
                    // a stroke is a whole thing: a pump's last one may end a moment sooner or later
                    return !fine.ReachedYield || fine.Seconds >= coarse.Seconds - 0.8;
                },
                iter: 150
            );

    [Fact]
    public void A_larger_cup_never_takes_less_time_or_extracts_less() =>
        Gen.Select(Which, Gen.Double[3, 8], Gen.Double[0.5, 0.95])
            .Sample(
                (which, resistance, less) =>
                {
                    var pair = Pairs[which];
                    // pressed alike: a plan by shares of the yield would ease sooner for the smaller cup
                    var plan = new PullPlan(
                        "flat",
                        "Flat",
                        "",
                        0.5,
                        [
                            new("press", 6, PhaseEnding.Seconds, 4, 0, 4, "Press"),
                            new("hold", 6, PhaseEnding.YieldShare, 1, 1, 90, "Hold"),
                        ]
                    );
                    var whole = PuckShots.Run(Puck(pair, resistance), plan, pair.Machine, pair.Yield);
                    var part = PuckShots.Run(Puck(pair, resistance), plan, pair.Machine, pair.Yield * less);
                    return !whole.ReachedYield
                        || (part.Seconds <= whole.Seconds && part.ExtractionShare <= whole.ExtractionShare + 1e-9);
                },
                iter: 100
            );

    [Fact]
    public void The_pressure_never_passes_what_the_machine_gives_and_phases_only_go_on() =>
        Gen.Select(Which, Gen.Double[2, 12])
            .Sample(
                (which, resistance) =>
                {
                    var pair = Pairs[which];
                    var preview = PlanPreview.Of(PuckShots.Of(Puck(pair, resistance), pair.Plan, pair.Machine, pair.Yield));
                    for (var i = 1; i < preview.Points.Count; i++)
                    {
                        var (before, now) = (preview.Points[i - 1], preview.Points[i]);
                        if (now.Phase < before.Phase || now.CupGrams < before.CupGrams)
                            return false;
                        // a hand lets go in some tenths of a second, so only what rises must stay below; a lift may begin
                        // between two points, and what rose before it was pressed
                        if (
                            pair.Machine.PressureBy == PressureBy.Arm
                            && now.PressureBar > before.PressureBar
                            && now.PressureBar > Math.Max(before.MostBar, now.MostBar) + 0.05
                        )
                            return false;
                    }

                    return true;
                },
                iter: 100
            );

    [Fact]
    public void Water_only_goes_forward_and_a_stroke_holds_no_more_than_its_piston() =>
        Gen.Select(Which, Gen.Double[2, 12])
            .Sample(
                (which, resistance) =>
                {
                    var pair = Pairs[which];
                    var shot = PuckShots.Run(Puck(pair, resistance), pair.Plan, pair.Machine, pair.Yield);
                    for (var i = 1; i < shot.Samples.Count; i++)
                    {
                        var (before, now) = (shot.Samples[i - 1], shot.Samples[i]);
                        if (now.MovedMl < before.MovedMl || now.StrokeMl < -1e-9 || now.StrokeMl > now.MovedMl + 1e-9)
                            return false;
                        // of a spring the card never lies above its line; a hand lets go in some tenths of a second, so only what
                        // rises counts
                        if (
                            pair.Machine.PressureBy == PressureBy.Spring
                            && now.StrokeMl > 0.5
                            && now.PressureBar > before.PressureBar + 1e-6
                            && now.PressureBar > Spring.PressureBar(pair.Machine, before.StrokeMl) + 0.05
                        )
                            return false;
                    }

                    return true;
                },
                iter: 150
            );

    [Fact]
    public void Harder_all_the_way_is_never_slower_and_says_so_in_its_name() =>
        Gen.Select(Which, Gen.Double[3, 8], Gen.Double[1.05, 1.4])
            .Sample(
                (which, resistance, harder) =>
                {
                    var pair = Pairs[which];
                    var strong = pair.Machine with { WillingForceKgf = 60 };
                    var scaled = pair.Plan.Scaled(harder).Checked();
                    if (!scaled.Name.EndsWith("harder", StringComparison.Ordinal))
                        return false;
                    // holding a flow is the same flow, however hard it may be pressed
                    if (pair.Plan.Phases.Any(p => p.Move is PhaseMove.HoldFlow))
                        return true;
                    var usual = PuckShots.Run(Puck(pair, resistance), pair.Plan, strong, pair.Yield);
                    var firm = PuckShots.Run(Puck(pair, resistance), scaled, strong, pair.Yield);
                    return !usual.ReachedYield || firm.Seconds <= usual.Seconds + 0.8;
                },
                iter: 150
            );

    [Fact]
    public void A_scale_out_of_range_names_its_field() =>
        Assert.Equal("factor", Assert.Throws<FieldRangeException>(() => ShippedPlans.EarlyPeak.Scaled(2)).Range.Field);

    [Fact] // same inputs, same trace to the last digit
    public void The_same_plan_on_the_same_puck_runs_the_same()
    {
        foreach (var pair in Pairs)
        {
            var once = PuckShots.Run(Puck(pair, 5), pair.Plan, pair.Machine, pair.Yield);
            var again = PuckShots.Run(Puck(pair, 5), pair.Plan, pair.Machine, pair.Yield);
            Assert.Equal(once.Samples, again.Samples);
        }
    }
}
