using RuddySpring.Core.Beans;
using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Reasoning;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Tests.Reasoning;

/// <summary>Shots as no careful household would have them: half recorded, oddly noted, of any machine and any plan.</summary>
public sealed class OddShotsTests
{
    private const int Shots = 400;

    private static T? Maybe<T>(SeededRandom random, T value, double often = 0.5)
        where T : struct => random.Uniform() < often ? value : null;

    /// <summary>A trace of a simulated shot, or of nothing that makes sense.</summary>
    private static ShotReading? Record(SeededRandom random, ShotConditions shot)
    {
        if (random.Uniform() < 0.15)
            return null;
        var pulled = SimulatedShot
            .Pull(shot.WithResistance(Core.Puck.PuckParameters.Resistance.Nearest(Math.Exp(random.Uniform(-2, 4)))))
            .Samples;
        var samples = pulled.Take(random.Uniform() < 0.3 ? 2 + random.Below(pulled.Count) : pulled.Count).ToList();
        var odd = random.Below(6);
        double[] at = [.. samples.Select(s => s.Seconds)];
        double[] bar =
        [
            .. samples.Select(s =>
                odd == 1 ? 0
                : odd == 2 ? 12 * random.Uniform()
                : s.PressureBar
            ),
        ];
        double[] grams =
        [
            .. samples.Select(s =>
                odd == 3 ? 0
                : odd == 4 ? 300 * random.Uniform()
                : s.CupGrams
            ),
        ];
        List<Series> series = [];
        if (random.Uniform() < 0.8)
            series.Add(new(Channel.Pressure, Origin.Measured, at, bar));
        if (series.Count == 0 || random.Uniform() < 0.8)
            series.Add(new(Channel.Weight, Origin.Measured, at, grams));
        var marked = random.Uniform() < 0.2 ? new Moments(0, 200 * random.Uniform(), null, null, null, null, 1) : Moments.None;
        return MeasureShot.Read(new(series), marked, new ShotContext(shot.Bed.DoseGrams));
    }

    private static ShotFacts Draw(SeededRandom random, int earlier)
    {
        var families = Enum.GetValues<MachineFamily>();
        var (machine, _, _) = FamilyDefaults.Of(families[random.Below(families.Length)]);
        var plan = ShippedPlans.All[random.Below(ShippedPlans.All.Count)];
        if (random.Uniform() < 0.1)
            plan = plan with { Key = PullPlan.UnknownKey };
        var basket = Core.Puck.Basket.Of(machine) with { RestrictorBarS2PerMl2 = random.Uniform() < 0.2 ? 5 : 0 };
        var sheet = ShotConditions.Of(
            machine,
            plan,
            random.Uniform(5, 30),
            random.Uniform(5, 120),
            random.Uniform(20, 100),
            basket: basket
        );
        int? Mark() => Maybe(random, random.Below(5));
        return new()
        {
            Sheet = sheet,
            Reading = Record(random, sheet),
            Expected = Maybe(random, new Core.Fitting.Prediction(random.Normal(3), Math.Exp(random.Normal(2)), 4)),
            Grind =
                random.Uniform() < 0.5
                    ? new(random.Normal(1000), "clicks", new(1, random.Uniform() < 0.5), random.Below(3) * random.Normal(0.1))
                    : null,
            Roast = random.Below(3) switch
            {
                0 => "",
                1 => "DARK as the night",
                _ => "light",
            },
            AgeDays = Maybe(random, random.Below(4000)),
            Rest = RestWindow.Of(RestSchool.Fresh),
            WaterC = Maybe(random, random.Uniform(0, 120)),
            GroupC = Maybe(random, random.Normal(500)),
            Band = machine.HasBoiler ? GroupBand.Of(HeatConstants.Of(machine)) : null,
            BoilerBar = Maybe(random, random.Uniform(0, 3)),
            InARow = Maybe(random, random.Below(20)),
            Ticked = new(
                Maybe(random, random.Uniform() < 0.5),
                Maybe(random, random.Uniform() < 0.5),
                Maybe(random, random.Uniform() < 0.5),
                Maybe(random, random.Uniform() < 0.5)
            ),
            ScreenBelongs = random.Uniform() < 0.5,
            OtherCoffeeBefore = random.Uniform() < 0.5,
            Taste = new(Mark(), Mark(), Mark(), Mark(), Mark(), Maybe(random, 1 + random.Below(5))),
            Seen = random.Uniform() < 0.5 ? Enum.GetValues<Seen>().Where(_ => random.Uniform() < 0.3).ToHashSet() : null,
            Strength = Maybe(random, random.Uniform(0.01, 0.3)),
            Earlier = [.. Enumerable.Range(0, earlier).Select(_ => Draw(random, 0))],
        };
    }

    [Fact]
    public void Any_shot_gets_an_answer_whose_numbers_are_numbers()
    {
        Parallel.For(0, Shots, n =>
        {
            var random = new SeededRandom((ulong)n + 1);
            var shot = Draw(random, random.Below(4));
            var said = Diagnosis.Of(shot);
            Assert.InRange(said.Nothing, 0, 1);
            Assert.All(said.Causes, c => Assert.InRange(c.Probability, 0, 1 + 1e-9));
            Assert.All(said.Signs, s => Assert.True(double.IsFinite(s.Value) && s.Sd > 0, $"{n}: {s}"));
            Assert.NotEqual("", DiagnosisWords.Headline(said));
            Assert.All(said.Causes, c => Assert.DoesNotContain("NaN", c.Change.Do, StringComparison.Ordinal));
            if (said.Telling is { } telling)
                Assert.InRange(telling.Bits, 0, 10);
            if (said.Causes.Count > 0)
                _ = AdviceVerdict.Of(new(said.Causes[0].Key, said.Causes[0].Change), shot, said);
            if (shot.Earlier.Count > 0)
                _ = MovedTogether.Of(shot, shot.Earlier[0]);
        });
    }
}
