using RuddySpring.Core.Care;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Reasoning;
using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Tests.Reasoning;

/// <summary>Causes and what is made of them, worked out by hand.</summary>
public sealed class CauseTests
{
    private static ShotFacts Plain(MachineFamily family = MachineFamily.PortableLever) =>
        new() { Sheet = ShotConditions.Of(FamilyDefaults.Of(family).Machine, ShippedPlans.EarlyPeak, 15, 32, 91) };

    private sealed class Made(string key, double odds, Sign sign, double shift, double sd) : Cause
    {
        public override string Key => key;

        public override string Name => $"It was {key}";

        public override WorkingOrder Order => WorkingOrder.Pull;

        public override Sign? Proof => sign;

        public override double Odds(ShotFacts shot) => odds;

        public override IReadOnlyList<CauseCase> Cases(ShotFacts shot) => One(new Shift(sign, shift, sd));

        public override NextChange Change(ShotFacts shot, double size) => new("do", "leave", "expect");
    }

    [Fact]
    public void Every_cause_is_found_and_says_what_to_do()
    {
        Assert.InRange(CauseList.All.Count, 20, 60);
        Assert.Equal(CauseList.All.Count, CauseList.All.Select(c => c.Key).Distinct().Count());
        Assert.Equal(CauseList.All.OrderBy(c => c.Order).Select(c => c.Key), CauseList.All.Select(c => c.Key));
        foreach (var family in Enum.GetValues<MachineFamily>())
        {
            var shot = Plain(family);
            Assert.All(CauseList.All, c =>
            {
                Assert.InRange(c.Odds(shot), 0, 5);
                Assert.Equal(1, c.Cases(shot).Sum(k => k.Share), 9);
                Assert.All(c.Cases(shot).SelectMany(k => k.Shifts), s => Assert.True(s.Sd > 0));
                var change = c.Change(shot, c.Cases(shot)[0].Size);
                Assert.All([change.Do, change.Leave, change.Expect, c.Name, c.Source], t => Assert.NotEqual("", t));
            });
        }
    }

    [Fact]
    public void Wear_and_what_is_overdue_make_their_own_cause_likelier_and_no_other()
    {
        var plain = Plain();
        var worn = plain with { Care = new(new HashSet<string> { CareList.Seal }, new HashSet<WearKind> { WearKind.SealLeaks }) };
        Assert.All(CauseList.All, c => Assert.Equal(c.Odds(plain) * (c.Key == "seal-leaking" ? 20 : 1), c.Odds(worn), 9));
        Assert.NotNull(CauseList.Find("seal-leaking")!.Known(worn));
        Assert.Null(CauseList.Find("seal-leaking")!.Known(plain));
        var spring = Plain(MachineFamily.BoilerSpring);
        var sags = spring with { Care = CareFacts.None with { Wear = new HashSet<WearKind> { WearKind.SpringSags } } };
        Assert.True(CauseList.Find("spring-weak")!.Odds(sags) > 5 * CauseList.Find("spring-weak")!.Odds(spring));
        Assert.Equal(0, CauseList.Find("spring-weak")!.Odds(worn)); // an arm has no spring
    }

    [Fact] // a group on a kettle lever is not heated by a boiler, and a small hole says nothing of the grind
    public void A_cause_that_cannot_be_is_not_named()
    {
        var kettle = Plain();
        Assert.All(["group-hot", "air-in-boiler", "boiler-low"], k => Assert.Equal(0, CauseList.Find(k)!.Odds(kettle)));
        var basket = kettle.Sheet.Bed.Basket with { RestrictorBarS2PerMl2 = 4 };
        var hole = kettle with { Sheet = kettle.Sheet with { Bed = kettle.Sheet.Bed with { Basket = basket } } };
        Assert.Equal(0, CauseList.Find("grind-fine")!.Odds(hole));
        Assert.True(CauseList.Find("restrictor-clogged")!.Odds(hole) > 0);
        Assert.Equal(0, CauseList.Find("restrictor-clogged")!.Odds(kettle));
    }

    [Fact] // odds 0.25 and nothing to go by: 0.25 of 1.25, times what all odds are multiplied by
    public void Without_a_sign_what_was_known_before_is_all()
    {
        var said = Diagnosis.Of(Plain(), [new Made("one", 0.25, Sign.Cup, 0.2, 0.05)]);
        var odds = 0.25 * 1.5;
        Assert.Equal(1 / (1 + odds), said.Nothing, 9);
        Assert.Equal(odds / (1 + odds), said.Causes.Single().Probability, 9);
        Assert.Equal(Verdict.TooLittle, said.Verdict);
    }

    [Fact] // Bayes' rule with Student's t of 6 degrees, by hand
    public void A_sign_counts_by_how_likely_it_is_with_and_without()
    {
        var shot = Plain() with { Taste = TasteMarks.None with { Sour = 3 } };
        var (usual, sd) = SignReader.Usual(Sign.Sour, []);
        static double T(double x, double mean, double sd) => Math.Pow(1 + (Math.Pow((x - mean) / sd, 2) / 6), -3.5) / sd;
        var with = 0.1 * 1.5 * T(3 - usual, 1.5, Math.Sqrt((sd * sd) + 0.25));
        var without = T(3 - usual, 0, sd);
        var said = Diagnosis.Of(shot, [new Made("one", 0.1, Sign.Sour, 1.5, 0.5)]);
        Assert.Equal(with / (with + without), said.Causes.Single().Probability, 6);
    }

    [Fact]
    public void What_is_not_there_changes_nothing()
    {
        var shot = Plain() with { Taste = TasteMarks.None with { Sour = 3, Bitter = 1 } };
        var cause = new Made("one", 0.1, Sign.Drops, 1, 0.2);
        Assert.Equal(
            Diagnosis.Of(Plain(), [cause]).Causes.Single().Probability,
            Diagnosis.Of(shot, [cause]).Causes.Single().Probability,
            9
        );
    }

    [Fact] // common practice: a frame that flexes makes a centred stream lean
    public void A_lean_alone_is_no_channel()
    {
        double Channel(params Seen[] seen) =>
            Diagnosis
                .Of(Plain() with { Seen = seen.ToHashSet() })
                .Causes.Where(c => c.Key.StartsWith("channel", StringComparison.Ordinal))
                .Sum(c => c.Probability);
        Assert.Equal(Channel(), Channel(Seen.Lean), 9);
        Assert.True(Channel(Seen.Spurt, Seen.Hole) > 0.5);
        // looked, and nothing to see
        Assert.True(Channel() < 0.1);
    }

    [Fact] // the resistance is 35 % up at a setting with a step of 7 %: five steps
    public void The_change_has_the_size_that_was_told()
    {
        var shot = Plain() with { Grind = new(20, "clicks", new(1, true), -0.07) };
        var change = CauseList.Find("grind-fine")!.Change(shot, 0.35);
        Assert.Equal(25, change.GrindSetting);
        Assert.Contains("5 steps coarser", change.Do, StringComparison.Ordinal);
        Assert.Equal(15, CauseList.Find("grind-coarse")!.Change(shot, -0.35).GrindSetting);
    }

    [Fact]
    public void Advice_is_judged_by_the_next_shot()
    {
        var advice = new TakenAdvice("grind-fine", new("Grind 2 steps coarser.", "Leave it.", "In time.", 22));
        var next = Plain() with { Grind = new(22, "clicks", new(1, true), -0.07), Taste = TasteMarks.None with { Sour = 1 } };
        Diagnosis Said(double probability) =>
            new(
                Verdict.OneCause,
                1 - probability,
                [new("grind-fine", "Too fine", probability, [], [], advice.Change, null, "")],
                [new(Sign.Resistance, probability > 0.5 ? 0.4 : 0.02, 0.08, "the puck resisted 9 bar s/ml")]
            );
        Assert.True(AdviceVerdict.Of(advice, next, Said(0.05)).Worked);
        Assert.False(AdviceVerdict.Of(advice, next, Said(0.9)).Worked);
        // where the sign that should come back was not read, the cause itself must have gone
        var unread = Said(0.9) with { Signs = [new(Sign.Sour, 0, 0.6, "sourness as usual")] };
        Assert.False(AdviceVerdict.Of(advice, next, unread).Worked);
        var other = next with { Grind = new(20, "clicks", new(1, true), -0.07) };
        Assert.Null(AdviceVerdict.Of(advice, other, Said(0.05)).Worked);
    }

    [Fact] // advice that keeps failing is given less
    public void A_household_learns_which_advice_works()
    {
        var shot = Plain() with { Taste = TasteMarks.None with { Sour = 3 } };
        var cause = new Made("one", 0.1, Sign.Sour, 1.5, 0.5);
        double After(params bool[] worked) =>
            Diagnosis
                .Of(shot with { Record = [.. worked.Select(w => new AdviceOutcome("one", w))] }, [cause])
                .Causes.Single()
                .Probability;
        Assert.True(After(false, false, false) < After());
        Assert.True(After(true, true, true) > After());
        Assert.Equal(After(), After([.. Enumerable.Empty<bool>()]), 9);
    }

    [Fact] // 19 g in, 38 g out at 11.8 %: 23.6 % (common practice)
    public void Extraction_is_strength_times_yield_over_dose()
    {
        var told = MeasuredExtraction.Of(0.118, 38, 19);
        Assert.Equal(0.236, told.Share, 12);
        Assert.Contains("what stays in the puck is not counted", told.Sentence, StringComparison.Ordinal);
        Assert.Contains("more than dissolves", MeasuredExtraction.Of(0.2, 38, 19).Sentence, StringComparison.Ordinal);
        Assert.Contains("That is low", MeasuredExtraction.Of(0.06, 38, 19).Sentence, StringComparison.Ordinal);
    }

    [Fact] // normal prior and normal readings in closed form, and one odd shot among them
    public void The_usual_is_learned_and_one_odd_shot_does_not_move_it()
    {
        var (none, wide) = SignReader.Usual(Sign.Sour, []);
        Assert.Equal((1.0, Math.Sqrt((0.4 * 0.4) + (0.6 * 0.6))), (none, wide));
        var (usual, sd) = SignReader.Usual(Sign.Sour, [2, 2, 2, 2, 2, 2]);
        var spread = 5 * 0.36 / 10;
        var told = 6 / spread;
        Assert.Equal((1.0 / 0.16 + 2 * told) / (1 / 0.16 + told), usual, 9);
        Assert.True(sd < wide);
        var (odd, _) = SignReader.Usual(Sign.Cup, [0, 0, 0, 0, 0, 0.9]);
        Assert.InRange(odd, -0.01, 0.01);
        Assert.InRange(SignReader.Usual(Sign.Cup, [0, 0, 0.9, 0, 0]).Usual, -0.01, 0.01);
    }

    [Fact] // the same arm on the same puck is the same shot
    public void A_recorded_arm_pulls_its_own_shot_again()
    {
        var shot = Plain().Sheet.WithResistance(3.2);
        var pulled = SimulatedShot.Pull(shot);
        var arm = new ArmRecord(
            [.. pulled.Samples.Select(s => new ArmSample(s.Seconds, s.PressureBar, s.CupGrams))],
            pulled.FirstDropsSeconds
        );
        double Seconds(ShotConditions puck)
        {
            var (run, drive) = (new ShotRun(puck), new RecordedArm(arm));
            while (run.Seconds < 200 && run.Stream.LeftPuckGrams < 32)
                run.Step(drive, ShotRun.UsualStepSeconds);
            return run.Seconds;
        }

        // where drops come later than they did, the hand waits at the pressure that it held, and does not ramp by the clock
        var slow = new ShotRun(shot with { Behaviour = shot.Behaviour with { DryShare = 1 } });
        var waiting = new RecordedArm(arm);
        while (slow.FirstDropsSeconds is null && slow.Seconds < 60)
            slow.Step(waiting, ShotRun.UsualStepSeconds);
        Assert.True(slow.FirstDropsSeconds > pulled.FirstDropsSeconds + 6);
        Assert.InRange(slow.PressureBar, 2, 3);
        Assert.InRange(Seconds(shot), pulled.Seconds - 0.4, pulled.Seconds + 0.4);
        Assert.True(Seconds(shot.WithResistance(4)) > pulled.Seconds + 3);
    }

    [Fact] // two causes that look alike but for what is seen: the puck tells, and looking costs nothing
    public void The_most_telling_thing_is_what_separates_the_causes()
    {
        // the taste says sour, the cause may be the heat or a channel, and nobody has looked
        var shot = Plain() with { Taste = TasteMarks.None with { Sour = 3, Bitter = 1, Dry = 1, Sweet = 1, Body = 2 } };
        var said = Diagnosis.Of(shot);
        Assert.True(said.Causes[0].Probability < 0.75);
        Assert.Contains("puck", said.Telling!.Do, StringComparison.Ordinal);
        Assert.InRange(said.Telling.Bits, 0.05, 3);
        // once somebody has, it is not asked again
        Assert.DoesNotContain(
            "Look at",
            Diagnosis.Of(shot with { Seen = new HashSet<Seen>() }).Telling?.Do ?? "",
            StringComparison.Ordinal
        );
    }

    [Fact] // two far apart normals tell one bit; two that are the same tell none (Shannon 1948)
    public void Information_is_what_a_number_tells()
    {
        Assert.Equal(1, TellingNext.Information([(0.5, 0, 0.1), (0.5, 5, 0.1)]), 3);
        Assert.Equal(0, TellingNext.Information([(0.5, 0, 1), (0.5, 0, 1)]), 9);
        // one standard deviation either side: 0.4859 bits (numerical integration)
        Assert.Equal(0.486, TellingNext.Information([(0.5, -1, 1), (0.5, 1, 1)]), 2);
    }

    [Fact]
    public void What_moved_together_is_flagged_and_one_thing_is_not()
    {
        var before = Plain() with { WaterC = 92, Grind = new(20, "clicks", new(1, true), -0.07) };
        var both = before with { WaterC = 85, Grind = new(19, "clicks", new(1, true), -0.07) };
        Assert.Contains("Heat and grind changed together", MovedTogether.Of(both, before)!, StringComparison.Ordinal);
        Assert.Null(MovedTogether.Of(before with { WaterC = 85 }, before));
        Assert.Null(MovedTogether.Of(both with { Coffee = "another" }, before));
    }
}
