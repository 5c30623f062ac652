using RuddySpring.Core.Shots;
using RuddySpring.Core.Traces;
using RuddySpring.Instruments;

namespace RuddySpring.Core.Tests.SecondWorld;

/// <summary>A pull in a world: what truly happens, and what its instruments say of it. Times are s since the lever
/// moved.</summary>
public interface IWorldPull
{
    /// <summary>On the puck, bar.</summary>
    double PressureBar { get; }

    /// <summary>Has fallen into the cup, g.</summary>
    double CupGrams { get; }

    /// <summary>Hangs at the spout, g.</summary>
    double AtSpoutGrams { get; }

    /// <summary>Has gone into the puck, ml.</summary>
    double InflowMl { get; }

    /// <summary>Leaves the puck now, g/s.</summary>
    double LeavesGramsPerS { get; }

    /// <summary>Advances by <see cref="World.StepSeconds"/>.</summary>
    void Step(double seconds);

    /// <summary>The hand lets go.</summary>
    void LetGo();

    /// <summary>What the gauge shows, bar; asked every <see cref="World.GaugeSteps"/> steps.</summary>
    double Gauge();

    /// <summary>What the scale shows, g; asked every <see cref="World.ScaleSteps"/> steps.</summary>
    double Scale();

    /// <summary>What would leave the puck, g/s, after a second of a pressure in bar.</summary>
    double FlowSoon(double bar);
}

/// <summary>A puck of a world under a pressure that is told, with what a scale would show: what someone who knows that world can
/// imagine.</summary>
public interface IImagined
{
    /// <summary>What the scale would show, g.</summary>
    double ShownGrams { get; }

    /// <summary>Whether drops shake the scale.</summary>
    bool Drips { get; }

    /// <summary>Advances by a step in s under a pressure in bar.</summary>
    void Step(double bar, double seconds);

    /// <summary>What would leave the puck, g/s, after a second of a pressure in bar.</summary>
    double FlowSoon(double bar);

    /// <summary>The same as it stands, with a chance of its own from here on.</summary>
    IImagined Copy(SeededRandom random);
}

/// <summary>A household in a world: one coffee, one grinder, one scale, one holder.</summary>
public interface IHousehold
{
    /// <summary>Delay of its spout, s.</summary>
    double SpoutSeconds { get; }

    /// <summary>Lag of its scale, s.</summary>
    double ScaleSeconds { get; }

    /// <summary>The same household with another scale, of a lag in s.</summary>
    IHousehold OnScale(double scaleSeconds);

    /// <summary>A pull by a plan with a grind of so many times the household's usual resistance.</summary>
    IWorldPull Pull(ShotConditions sheet, double grind, ulong seed);

    /// <summary>A puck as it may be, behind a spout and a scale as they may be.</summary>
    IImagined Imagine(ShotConditions sheet, double grind, double spoutSeconds, double scaleSeconds, SeededRandom random);
}

/// <summary>One of the two worlds that the core is judged in.</summary>
public abstract record World(string Name)
{
    /// <summary>Whether every number is asked for, as the document has it, and not only as many as a quick look needs.</summary>
    public static readonly bool Whole = Environment.GetEnvironmentVariable("RUDDY_WHOLE") is not null;

    /// <summary>Step of a world, s.</summary>
    public const double StepSeconds = 0.01;

    /// <summary>Steps between two readings of the gauge.</summary>
    public const int GaugeSteps = 5;

    /// <summary>Steps between two readings of the scale.</summary>
    public const int ScaleSteps = 10;

    /// <summary>To hear, to know and to move, s (common practice).</summary>
    public const double ReactsSeconds = 0.35;

    private const int SoonSteps = 100;

    /// <summary>The stand-in's: the core's own puck with its numbers shaken.</summary>
    public static readonly World Own = new OwnWorld();

    /// <summary>The second one.</summary>
    public static readonly World Other = new OtherWorld();

    /// <summary>Both.</summary>
    public static readonly World[] Both = [Own, Other];

    /// <summary>A household by chance, with any scale and any spout.</summary>
    public abstract IHousehold Household(ulong seed);

    /// <summary>What its instruments recorded of a pull: g from zero, a gauge not put right.</summary>
    /// <returns>The trace, when the hand heard that it was time, and what came into the cup.</returns>
    public static (Trace Trace, double CuedAt, double CupGrams) Record(
        IWorldPull pull,
        double yieldGrams,
        double longestSeconds = 150
    )
    {
        List<double> at = [],
            bars = [],
            when = [],
            grams = [];
        double? over = null;
        for (var step = 1; step * StepSeconds < longestSeconds && !(over < (step * StepSeconds) - 6); step++)
        {
            var t = step * StepSeconds;
            if (pull.CupGrams + pull.AtSpoutGrams >= yieldGrams)
                over ??= t;
            if (t > over + ReactsSeconds)
                pull.LetGo();
            pull.Step(t);
            if (step % GaugeSteps == 0)
            {
                at.Add(t);
                bars.Add(pull.Gauge());
            }

            if (step % ScaleSteps != 0)
                continue;
            when.Add(t);
            grams.Add(pull.Scale());
        }

        return (
            new([new(Channel.Pressure, Origin.Measured, at, bars), new(Channel.Weight, Origin.Measured, when, grams)]),
            over ?? longestSeconds,
            pull.CupGrams
        );
    }

    private sealed record OwnWorld() : World("own")
    {
        private const double UsualResistance = 3.2;

        public override IHousehold Household(ulong seed)
        {
            var random = new SeededRandom(seed * 7919);
            return new House(0.2 + random.Uniform(), 0.2 + (0.6 * random.Uniform()));
        }

        private sealed record House(double SpoutSeconds, double ScaleSeconds) : IHousehold
        {
            public IHousehold OnScale(double scaleSeconds) => this with { ScaleSeconds = scaleSeconds };

            public IWorldPull Pull(ShotConditions sheet, double grind, ulong seed) =>
                new Run(
                    new SeededRandom(seed),
                    sheet.WithResistance(UsualResistance * grind) with
                    {
                        Path = new(SpoutSeconds, ScaleSeconds),
                    }
                );

            public IImagined Imagine(
                ShotConditions sheet,
                double grind,
                double spoutSeconds,
                double scaleSeconds,
                SeededRandom random
            )
            {
                var path = new CupPath(spoutSeconds, scaleSeconds);
                return new Imagined(new(random, sheet.WithResistance(UsualResistance * grind) with { Path = path }), path, 0);
            }
        }

        private sealed class Imagined(StandInPuck puck, CupPath path, double shown) : IImagined
        {
            public double ShownGrams { get; private set; } = shown;

            public bool Drips => puck.FallingGramsPerS > 0.02;

            public void Step(double bar, double seconds)
            {
                puck.Step(bar, seconds);
                ShownGrams += (puck.CupGrams - ShownGrams) * path.ShareThatShows(seconds);
            }

            public double FlowSoon(double bar) => Ahead(puck, bar);

            public IImagined Copy(SeededRandom random) => new Imagined(new(puck, random), path, ShownGrams);
        }

        private static double Ahead(StandInPuck puck, double bar)
        {
            var ahead = new StandInPuck(puck, new SeededRandom(1));
            for (var i = 0; i < SoonSteps; i++)
                ahead.Step(bar, StepSeconds);
            return ahead.LeavesGramsPerS;
        }

        private sealed class Run(SeededRandom random, ShotConditions sheet) : IWorldPull
        {
            private readonly StandInPuck _puck = new(random, sheet);
            private readonly StandInHand _hand = new(random, sheet.Plan, sheet.Machine, sheet.YieldGrams);
            private readonly GaugeModel _gauge = new(random);
            private readonly ScaleModel _scale = new(random, sheet.Path.ScaleLagSeconds);

            public double PressureBar => _hand.PressureBar;

            public double CupGrams => _puck.CupGrams;

            public double AtSpoutGrams => _puck.AtSpoutGrams;

            public double InflowMl => _puck.InflowMl;

            public double LeavesGramsPerS => _puck.LeavesGramsPerS;

            public void Step(double seconds)
            {
                if (_puck.InflowMl >= CupVolumes.MostPuckMl(sheet.Machine))
                    _hand.LetGo();
                _hand.Next(_puck.Seen with { Seconds = seconds }, _puck.InflowMlPerS, StepSeconds);
                _puck.Step(_hand.PressureBar, StepSeconds);
            }

            public void LetGo() => _hand.LetGo();

            public double Gauge() => _gauge.Read(PressureBar);

            public double Scale() => _scale.Read(CupGrams, _puck.FallingGramsPerS, ScaleSteps * StepSeconds);

            public double FlowSoon(double bar) => Ahead(_puck, bar);
        }
    }

    private sealed record OtherWorld() : World("other")
    {
        private const double UsualResistance = 2.3; // 15 g that land an early peak in its time

        public override IHousehold Household(ulong seed)
        {
            var random = new SeededRandom((seed * 104_729) + 13);
            return new House(OtherCoffee.Draw(random), 0.2 + random.Uniform(), 0.2 + (0.6 * random.Uniform()));
        }

        private sealed record House(OtherCoffee Coffee, double SpoutSeconds, double ScaleSeconds) : IHousehold
        {
            public IHousehold OnScale(double scaleSeconds) => this with { ScaleSeconds = scaleSeconds };

            public IWorldPull Pull(ShotConditions sheet, double grind, ulong seed) =>
                new Run(new SeededRandom(seed), sheet, this, grind * UsualResistance);

            public IImagined Imagine(
                ShotConditions sheet,
                double grind,
                double spoutSeconds,
                double scaleSeconds,
                SeededRandom random
            ) => new Imagined(Of(random, Coffee, sheet, grind * UsualResistance), new(spoutSeconds), scaleSeconds, []);
        }

        private static OtherPuck Of(SeededRandom random, OtherCoffee coffee, ShotConditions sheet, double resistance) =>
            new(random, coffee, sheet.Bed.DoseGrams, resistance, sheet.Water.StartC(), sheet.Bed.Basket.RestrictorBarS2PerMl2);

        private static double Ahead(OtherPuck puck, double bar)
        {
            var ahead = puck.Copy(new SeededRandom(1));
            var left = 0.0;
            for (var i = 0; i < SoonSteps; i++)
                left = ahead.Step(bar, StepSeconds);
            return left / StepSeconds;
        }

        private sealed class Imagined(
            OtherPuck puck,
            OtherSpout spout,
            double scaleSeconds,
            IEnumerable<(double At, double Grams)> before
        ) : IImagined
        {
            private readonly Queue<(double At, double Grams)> _seen = new(before);
            private double _at;
            private double _cup;

            public double ShownGrams => _seen.Count == 0 ? 0 : _seen.Average(s => s.Grams);

            public bool Drips { get; private set; }

            public void Step(double bar, double seconds)
            {
                var falls = spout.Pass(puck.Step(bar, seconds), seconds);
                (_at, _cup, Drips) = (_at + seconds, _cup + falls, falls > 1e-4 * seconds);
                _seen.Enqueue((_at, _cup));
                while (_seen.Peek().At < _at - (2 * scaleSeconds))
                    _seen.Dequeue();
            }

            public double FlowSoon(double bar) => Ahead(puck, bar);

            public IImagined Copy(SeededRandom random) =>
                new Imagined(puck.Copy(random), spout.Copy(), scaleSeconds, _seen) { _at = _at, _cup = _cup };
        }

        private sealed class Run(SeededRandom random, ShotConditions sheet, House house, double resistance) : IWorldPull
        {
            private readonly OtherPuck _puck = Of(random, house.Coffee, sheet, resistance);
            private readonly OtherSpout _spout = new(house.SpoutSeconds);
            private readonly OtherArm _arm = new(random, sheet.Plan, sheet.Machine, sheet.YieldGrams);
            private readonly OtherGauge _gauge = new(random);
            private readonly OtherScale _scale = new(random, house.ScaleSeconds);
            private double _falls;

            public double PressureBar => _arm.PressureBar;

            public double CupGrams { get; private set; }

            public double AtSpoutGrams => _spout.Grams;

            public double InflowMl => _puck.InflowMl;

            public double LeavesGramsPerS { get; private set; }

            public void Step(double seconds)
            {
                if (_puck.InflowMl >= CupVolumes.MostPuckMl(sheet.Machine))
                    _arm.LetGo();
                _arm.Step(seconds, StepSeconds, CupGrams, _puck.InflowMl, _falls / StepSeconds);
                var left = _puck.Step(_arm.PressureBar, StepSeconds);
                LeavesGramsPerS = left / StepSeconds;
                CupGrams += _falls = _spout.Pass(left, StepSeconds);
                _scale.See(seconds, CupGrams);
            }

            public void LetGo() => _arm.LetGo();

            public double Gauge() => _gauge.Read(PressureBar, GaugeSteps * StepSeconds);

            public double Scale() => _scale.Read(_falls > 1e-4);

            public double FlowSoon(double bar) => Ahead(_puck, bar);
        }
    }
}
