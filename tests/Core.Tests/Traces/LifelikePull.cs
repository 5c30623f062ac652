using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Tests.Traces;

/// <summary>
/// A pull as life records it, made from plain shapes that the core does not know: lines, an exponential when the hand lets go,
/// drops after. Times in s on the record's clock, pressures in bar, weights in g.
/// </summary>
public sealed record LifelikePull
{
    public double LeadSeconds { get; init; }
    public double? PreInfusionSeconds { get; init; }
    public double PreInfusionBar { get; init; } = 2.5;
    public double RampSeconds { get; init; } = 3;
    public double PeakBar { get; init; } = 8;
    public double HoldSeconds { get; init; } = 6;
    public double EaseSeconds { get; init; } = 14;
    public double EndBar { get; init; } = 8;
    public double LetGoSeconds { get; init; } = 0.4;
    public double FlowGramsPerS { get; init; } = 1.4;
    public double DripSeconds { get; init; }
    public double DripGrams { get; init; }
    public double RestAfterSeconds { get; init; } = 2;
    public bool CupLifted { get; init; }
    public double CupMassGrams { get; init; } = 140;
    public double GaugeRestBar { get; init; }
    public double GaugeNoiseBar { get; init; } = 0.03;
    public double SamplesPerS { get; init; } = 20;
    public double? GapAt { get; init; }
    public double GapSeconds { get; init; } = 1;
    public ulong Seed { get; init; } = 1;

    private double RampAt => LeadSeconds + (PreInfusionSeconds is { } pre ? 0.8 + pre : 0);
    private double TopAt => RampAt + RampSeconds;
    private double EaseAt => TopAt + HoldSeconds;

    public bool Eases => PeakBar - EndBar > 1;
    public double StopAt => EaseAt + EaseSeconds;
    public double DropsAt => PreInfusionSeconds is null ? TopAt + 1.5 : RampAt + 0.5;
    public double LiftedAt => StopAt + Math.Max(1.5, DripSeconds) + 0.5;

    /// <summary>Long enough for the gauge to be seen at rest.</summary>
    private double EndsAt => Math.Max(LiftedAt + 1.5, StopAt + (4 * LetGoSeconds) + RestAfterSeconds);

    public Moments Moments =>
        new(
            At(0.5, LeadSeconds),
            DropsAt,
            PreInfusionSeconds is null ? null : RampAt,
            TopAt,
            Eases ? EaseAt : null,
            null,
            StopAt,
            LeadSeconds
        );

    public double CupGrams => TrueGrams(CupLifted ? LiftedAt : EndsAt);

    public double TruePressure(double t)
    {
        if (t < LeadSeconds)
            return 0;
        if (PreInfusionSeconds is not null && t < LeadSeconds + 0.8)
            return PreInfusionBar * (t - LeadSeconds) / 0.8;
        var from = PreInfusionSeconds is null ? 0 : PreInfusionBar;
        if (t < RampAt)
            return PreInfusionBar;
        if (t < TopAt)
            return from + ((PeakBar - from) * (t - RampAt) / RampSeconds);
        if (t < EaseAt)
            return PeakBar;
        if (t < StopAt)
            return Eases ? PeakBar + ((EndBar - PeakBar) * (t - EaseAt) / EaseSeconds) : PeakBar;
        return (Eases ? EndBar : PeakBar) * Math.Exp(-(t - StopAt) / LetGoSeconds);
    }

    public double TrueGrams(double t)
    {
        if (t < DropsAt)
            return 0;
        var flowing = Math.Min(t, StopAt) - DropsAt;
        var grams = FlowGramsPerS * (flowing < 0.4 ? flowing * flowing / 0.8 : flowing - 0.2);
        if (t <= StopAt)
            return grams;
        return grams + (DripSeconds <= 0 ? 0 : DripGrams * Math.Min(1, (t - StopAt) / DripSeconds));
    }

    public Trace Record(Origin origin = Origin.Measured)
    {
        var random = new SeededRandom(Seed);
        var (pressure, weight) = (
            (Seconds: new List<double>(), Values: new List<double>()),
            (Seconds: new List<double>(), Values: new List<double>())
        );
        var step = 1 / SamplesPerS;
        var shown = 0.0;
        for (var i = 0; i * step <= EndsAt; i++)
        {
            var t = i * step;
            var (onScale, flowing) =
                CupLifted && t >= LiftedAt ? (-CupMassGrams, false) : (TrueGrams(t), TrueGrams(t) > TrueGrams(t - step));
            shown += (onScale - shown) * (origin == Origin.Measured ? 1 - Math.Exp(-step / 0.4) : 1);
            if (GapAt is { } gap && t >= gap && t < gap + GapSeconds)
                continue;
            pressure.Seconds.Add(Math.Round(t, 3));
            pressure.Values.Add(Math.Round(TruePressure(t) + GaugeRestBar + random.Normal(GaugeNoiseBar), 2));
            weight.Seconds.Add(Math.Round(t, 3));
            weight.Values.Add(Math.Round(shown + (flowing ? random.Normal(0.05) : 0), 1));
        }

        return new([
            new(Channel.Pressure, origin, pressure.Seconds, pressure.Values),
            new(Channel.Weight, origin, weight.Seconds, weight.Values),
        ]);
    }

    private double At(double bar, double from)
    {
        for (var t = from; ; t += 0.01)
        {
            if (TruePressure(t) > bar)
                return t;
        }
    }
}
