using RuddySpring.Core.Shots;
using RuddySpring.Core.Traces;
using RuddySpring.Instruments;

namespace RuddySpring.Core.Tests.SecondWorld;

/// <summary>A pull in a world: what truly happens, and what its instruments say of it. Times are s since the lever moved.</summary>
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

/// <summary>A household in a world: one coffee, one grinder, one scale, one holder.</summary>
public interface IHousehold
{
    /// <summary>Delay of its spout, s.</summary>
    double SpoutSeconds { get; }

    /// <summary>Lag of its scale, s.</summary>
    double ScaleSeconds { get; }

    /// <summary>A pull by a plan with a grind of so many times the household's usual resistance.</summary>
    IWorldPull Pull(ShotConditions sheet, double grind, ulong seed);
}

/// <summary>One of the two worlds that the core is judged in.</summary>
public abstract record World(string Name)
{
    /// <summary>Step of a world, s.</summary>
    public const double StepSeconds = 0.01;

    /// <summary>Steps between two readings of the gauge.</summary>
    public const int GaugeSteps = 5;

    /// <summary>Steps between two readings of the scale.</summary>
    public const int ScaleSteps = 10;

    /// <summary>The stand-in's: the core's own puck with its numbers shaken.</summary>
    public static readonly World Own = new OwnWorld();

    /// <summary>The second one.</summary>
    public static readonly World Other = new OtherWorld();

    /// <summary>Both.</summary>
    public static readonly World[] Both = [Own, Other];

    /// <summary>A household by chance, with any scale and any spout.</summary>
    public abstract IHousehold Household(ulong seed);

    /// <summary>What its instruments recorded of a pull: g from zero, a gauge not put right.</summary>
    public static (Trace Trace, double LetGoAt, double CupGrams) Record(IWorldPull pull, double yieldGrams, double longestSeconds = 150)
    {
        List<double> at = [], bars = [], when = [], grams = [];
        double? over = null;
        for (var step = 1; step * StepSeconds < longestSeconds && !(over < (step * StepSeconds) - 6); step++)
        {
            var t = step * StepSeconds;
            if (over is null && pull.CupGrams + pull.AtSpoutGrams >= yieldGrams)
            {
                pull.LetGo();
                over = t;
            }

            pull.Step(t);
            if (step % GaugeSteps == 0)
            {
                at.Add(t);
                bars.Add(pull.Gauge());
            }

            if (step % ScaleSteps != 0) continue;
            when.Add(t);
            grams.Add(pull.Scale());
        }

        return (new([new(Channel.Pressure, Origin.Measured, at, bars), new(Channel.Weight, Origin.Measured, when, grams)]), over ?? longestSeconds, pull.CupGrams);
    }

    private sealed record OwnWorld() : World("own")
    {
        public override IHousehold Household(ulong seed)
        {
            var random = new SeededRandom(seed * 7919);
            return new House(0.2 + random.Uniform(), 0.2 + (0.6 * random.Uniform()));
        }

        private sealed record House(double SpoutSeconds, double ScaleSeconds) : IHousehold
        {
            public IWorldPull Pull(ShotConditions sheet, double grind, ulong seed) =>
                new Run(new SeededRandom(seed), sheet.WithResistance(3.2 * grind) with { Path = new(SpoutSeconds, ScaleSeconds) });
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
                if (_puck.InflowMl >= CupVolumes.MostPuckMl(sheet.Machine)) _hand.LetGo();
                _hand.Next(_puck.Seen with { Seconds = seconds }, _puck.InflowMlPerS, StepSeconds);
                _puck.Step(_hand.PressureBar, StepSeconds);
            }

            public void LetGo() => _hand.LetGo();

            public double Gauge() => _gauge.Read(PressureBar);

            public double Scale() => _scale.Read(CupGrams, _puck.FallingGramsPerS, ScaleSteps * StepSeconds);

            public double FlowSoon(double bar) => _puck.TrueOutflowMlPerS(bar) * _puck.GramsPerMl;
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
            public IWorldPull Pull(ShotConditions sheet, double grind, ulong seed) => new Run(new SeededRandom(seed), sheet, this, grind * UsualResistance);
        }

        private sealed class Run(SeededRandom random, ShotConditions sheet, House house, double resistance) : IWorldPull
        {
            private readonly OtherPuck _puck = new(random, house.Coffee, sheet.Bed.DoseGrams, resistance, sheet.Water.StartC, sheet.Bed.Basket.RestrictorBarS2PerMl2);
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
                if (_puck.InflowMl >= CupVolumes.MostPuckMl(sheet.Machine)) _arm.LetGo();
                _arm.Step(seconds, StepSeconds, CupGrams, _puck.InflowMl, _falls / StepSeconds);
                var left = _puck.Step(_arm.PressureBar, StepSeconds);
                LeavesGramsPerS = left / StepSeconds;
                CupGrams += _falls = _spout.Pass(left, StepSeconds);
                _scale.See(seconds, CupGrams);
            }

            public void LetGo() => _arm.LetGo();

            public double Gauge() => _gauge.Read(PressureBar, GaugeSteps * StepSeconds);

            public double Scale() => _scale.Read(_falls > 1e-4);

            public double FlowSoon(double bar)
            {
                var ahead = _puck.Copy(new SeededRandom(1));
                var left = 0.0;
                for (var i = 0; i < 100; i++) left = ahead.Step(bar, StepSeconds);
                return left / StepSeconds;
            }
        }
    }
}
