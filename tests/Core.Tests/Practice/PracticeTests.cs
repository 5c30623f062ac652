using RuddySpring.Core.Machines;
using RuddySpring.Core.Practice;

namespace RuddySpring.Core.Tests.Practice;

/// <summary>Lessons, the virtual lever and the score.</summary>
public sealed class PracticeTests(ITestOutputHelper output)
{
    public static TheoryData<string> Keys => [.. Lessons.All.Select(l => l.Key)];

    [Theory, MemberData(nameof(Keys))]
    public void A_good_hand_scores_well_and_better_than_a_poor_one(string key)
    {
        var lesson = Lessons.Of(key);
        List<int> good = [],
            poor = [];
        for (ulong seed = 1; seed <= 5; seed++)
        {
            good.Add(Score(Player.Play(lesson, seed)));
            poor.Add(Score(Player.Play(lesson, seed, wobble: 0.25, listens: false)));
        }

        output.WriteLine($"{key}: good {string.Join(' ', good)}, poor {string.Join(' ', poor)}");
        Assert.True(good.Average() >= 75, $"a good hand had {good.Average()}");
        Assert.True(good.Average() >= poor.Average() + 15, $"{good.Average()} against {poor.Average()}");

        int Score(PracticeRecord record)
        {
            var score = PracticeScore.Of(lesson, record);
            output.WriteLine(
                $"  {score.Points}: {string.Join(" ", score.Parts.Select(p => $"[{p.Of} {p.Points}] {p.Sentence}"))}"
            );
            Assert.All(score.Parts, p => Assert.InRange(p.Points, 0, 100));
            Assert.NotEmpty(score.Better);
            return score.Points;
        }
    }

    [Fact]
    public void The_lessons_come_in_their_order_and_each_says_why()
    {
        Assert.Equal(
            [
                "hold-3",
                "first-drops",
                "ramp-5",
                "hold-flow",
                "stop-gram",
                "too-fine",
                "too-coarse",
                "channel",
                "half-pulls",
                "pump-rest",
            ],
            Lessons.All.Select(l => l.Key)
        );
        Assert.All(Lessons.All, l =>
        {
            Assert.True(l.Teaches.Length > 10 && l.Why.Length > 40);
            l.Plan.Checked();
            Assert.NotEmpty(l.Scored);
        });
        Assert.Throws<DoesNotFitException>(() => Lessons.Of("juggling"));
    }

    [Fact]
    public void One_seed_and_one_hand_give_one_pull()
    {
        var lesson = Lessons.Of("ramp-5");
        Assert.Equal(Player.Play(lesson, 7).Samples, Player.Play(lesson, 7).Samples);
        Assert.NotEqual(Player.Play(lesson, 7).CupGrams, Player.Play(lesson, 8).CupGrams);
    }

    [Fact]
    public void Nothing_done_scores_nothing()
    {
        var run = new PracticeRun(Lessons.Of("stop-gram"), FamilyDefaults.Of(MachineFamily.PortableLever).Machine, 1);
        for (var i = 0; i < 1000; i++)
            run.Step(0);
        run.LetGo();
        for (var i = 0; i < 400; i++)
            run.Step(0);
        Assert.True(run.IsOver);
        Assert.True(PracticeScore.Of(Lessons.Of("stop-gram"), run.Record()).Points < 10);
    }

    [Theory]
    [InlineData("hold-3", MachineFamily.HeatedGroup, MachineFamily.HeatedGroup)]
    [InlineData("hold-3", MachineFamily.HandPump, MachineFamily.PortableLever)]
    [InlineData("half-pulls", MachineFamily.BoilerDirect, MachineFamily.BoilerSpring)]
    [InlineData("pump-rest", MachineFamily.HandPump, MachineFamily.HandPump)]
    public void A_lesson_is_played_on_the_chosen_machine_where_it_suits(string key, MachineFamily chosen, MachineFamily played) =>
        Assert.Equal(played, Lessons.Of(key).On(FamilyDefaults.Of(chosen).Machine).Family);

    [Fact] // statics of the lever: the effort is a hand force, and the pressure is what that force gives
    public void An_arm_that_presses_harder_makes_the_pressure_of_its_force()
    {
        var machine = FamilyDefaults.Of(MachineFamily.PortableLever).Machine;
        var lever = new VirtualLever(machine);
        for (var i = 0; i < 200; i++)
            lever.Step(0.5, 5, 1, true, 0.01);
        Assert.Equal(Lever.PressureBar(machine, lever.ForceKgf(0.5)!.Value, lever.Travel), lever.PressureBar, 0.02);
        for (var i = 0; i < 200; i++)
            lever.Step(0.5, 5, 1, false, 0.01);
        Assert.True(lever.PressureBar < 0.01); // no water, no pressure
    }

    [Fact]
    public void A_spring_that_is_let_go_gives_its_line_and_held_down_it_fills_at_boiler_pressure()
    {
        var machine = FamilyDefaults.Of(MachineFamily.BoilerSpring).Machine;
        var lever = new VirtualLever(machine);
        for (var i = 0; i < 200; i++)
            lever.Step(1, 0, 1, true, 0.01);
        Assert.True(lever.Filling);
        Assert.Equal(machine.BoilerGaugeBar!.Value, lever.PressureBar, 0.02);
        for (var i = 0; i < 200; i++)
            lever.Step(0, 10, 1, true, 0.01);
        Assert.Equal(Spring.PressureBar(machine, 10)!.Value, lever.PressureBar, 0.05);
        for (var i = 0; i < 200; i++)
            lever.Step(0.5, 10, 1, true, 0.01); // held back
        Assert.Equal(Spring.PressureBar(machine, 10)!.Value / 2, lever.PressureBar, 0.05);
        for (var i = 0; i < 200; i++)
            lever.Step(0, machine.ChamberMl + 1, 1, true, 0.01); // run out
        Assert.True(lever.PressureBar < 0.05);
        for (var i = 0; i < 50; i++)
            lever.Step(1, machine.ChamberMl + 1, 1, true, 0.01);
        Assert.Equal(1, lever.Strokes);
    }

    [Fact]
    public void A_pump_counts_its_strokes_and_makes_pressure_only_on_the_way_down()
    {
        var machine = FamilyDefaults.Of(MachineFamily.HandPump).Machine;
        var lever = new VirtualLever(machine);
        for (var stroke = 0; stroke < 4; stroke++)
        {
            for (var i = 0; i < 40; i++)
                lever.Step(i / 40.0, 0, 0, true, 0.01);
            lever.Step(1, 0, 0, true, 0.01);
            var top = lever.PressureBar;
            for (var i = 40; i > 0; i--)
                lever.Step(i / 40.0, 0, 0, true, 0.01);
            Assert.Equal(top, lever.PressureBar, 1e-9);
        }

        Assert.Equal(4, lever.Strokes);
        Assert.True(lever.PressureBar > 1);
    }
}
