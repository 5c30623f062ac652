using RuddySpring.Core.Heat;

namespace RuddySpring.Core.Tests.SecondWorld;

/// <summary>
/// A small boiler lever built otherwise than the core's: six lumps in a chain (boiler, neck, bell, sleeve, portafilter and the
/// strip that is stuck on the bell), losses by natural convection that grow with the 1.25th power of the difference and by
/// radiation, a pressurestat that lags, vapour pressure by Antoine's equation, and water that heats the sleeve before the bell
/// feels it. Stepped by Euler's method. Its constants were set once, to common practice (72 degC after 20 min, 76 after 25, about
/// 5 K a shot, 81 when left on), and are frozen.
/// </summary>
internal sealed class OtherBoiler
{
    private const double StepSeconds = 0.25;
    private const double Sigma = 5.670374419e-8;
    private const double CupJPerGK = 4.19;
    private const double LatentJPerG = 2200;

    private readonly double _neckG,
        _bellJ,
        _loss,
        _watts,
        _fill,
        _ua,
        _boilerLoss,
        _room,
        _stripOffset,
        _setBar;
    private readonly double _atmosphereBar;

    /// <summary>One machine of that make; no two are the same.</summary>
    /// <param name="random">Draws it.</param>
    /// <param name="ambientC">Room as it is said, degC; it is not quite so warm or cool.</param>
    /// <param name="altitudeMetres">Height above the sea, m.</param>
    public OtherBoiler(SeededRandom random, double ambientC = 20, double altitudeMetres = 500)
    {
        double Around(double value, double spread) => value * Math.Exp(random.Normal(spread));
        _neckG = Around(1.66, 0.16);
        _bellJ = Around(455, 0.22);
        _loss = Around(1.0, 0.14);
        _watts = Around(1000, 0.06);
        _fill = Around(740, 0.06);
        _ua = Around(8.0, 0.25);
        _boilerLoss = Around(1.0, 0.2);
        _room = ambientC + random.Normal(1.5);
        _stripOffset = random.Normal(0.7);
        _setBar = 1.1 + random.Normal(0.04);
        _atmosphereBar = 1.01325 * Math.Exp(-altitudeMetres / 8434);
    }

    /// <summary>A session's bell in degC, asked for at rising times in s; events as the core names them.</summary>
    public double[] Bell(IReadOnlyList<HeatEvent> events, IReadOnlyList<double> at)
    {
        double boiler = _room,
            neck = _room,
            bell = _room,
            sleeve = _room,
            holder = _room,
            sensed = _room;
        double water = _fill;
        bool on = false,
            heats = false;
        var answers = new double[at.Count];
        var next = 0;
        for (var t = 0.0; next < at.Count; t += StepSeconds)
        {
            while (next < at.Count && at[next] <= t + 1e-9)
                answers[next++] = bell;
            double flow = 0,
                steam = 0,
                cloth = 0;
            foreach (var e in events)
            {
                if (t < e.AtSeconds - 1e-9)
                    continue;
                var during = t < e.EndSeconds - 1e-9;
                var now = t - e.AtSeconds < StepSeconds - 1e-9;
                switch (e.Kind)
                {
                    case HeatEventKind.On when now:
                        (on, heats) = (true, true);
                        break;
                    case HeatEventKind.Off when now:
                        (on, heats) = (false, false);
                        break;
                    case HeatEventKind.Shot or HeatEventKind.Flush when during:
                        flow += e.Grams / e.Seconds;
                        break;
                    case HeatEventKind.Steam when during:
                        steam += e.Grams / e.Seconds;
                        break;
                    case HeatEventKind.Bleed when during:
                        steam += 0.5;
                        break;
                    case HeatEventKind.Cloth when during:
                        cloth = 3.5;
                        break;
                }
            }

            sensed += (boiler - sensed) * StepSeconds / 4.0;
            if (on)
                heats = heats ? Gauge(sensed) < _setBar : Gauge(sensed) < _setBar - 0.13;
            var boilerJ = 1000 + (water * CupJPerGK);
            var toNeck = _neckG * (boiler - neck);
            var toBell = 2.6 * (neck - bell);
            var toHolder = 3.0 * (bell - holder);
            var toSleeve = 5.0 * (bell - sleeve);
            double passed = 0;
            if (flow > 0)
            {
                passed = flow * CupJPerGK * (1.0 - Math.Exp(-_ua / (flow * CupJPerGK))) * (boiler - sleeve);
                water = Math.Max(0, water - (flow * StepSeconds));
            }

            var boils = steam > 0 && boiler > 97 ? steam : 0;
            water = Math.Max(0, water - (boils * StepSeconds));
            boiler +=
                StepSeconds
                * ((heats ? _watts : 0) - toNeck - Loss(0.55 * _boilerLoss, 0.05, boiler) - (boils * LatentJPerG))
                / boilerJ;
            neck += StepSeconds * (toNeck - toBell - Loss(0.02 * _loss, 0.003, neck)) / 110;
            bell +=
                StepSeconds
                * (toBell - toHolder - toSleeve - Loss(0.155 * _loss, 0.015, bell) - (cloth * (bell - _room)))
                / _bellJ;
            sleeve += StepSeconds * (toSleeve + (0.7 * passed)) / 90;
            holder += StepSeconds * (toHolder - Loss(0.045 * _loss, 0.01, holder) + (0.1 * passed)) / 150;
        }

        return answers;
    }

    /// <summary>What a strip on the bell shows, in steps of 2 K, stuck on as well or badly as this one is.</summary>
    public double Strip(double bellC, SeededRandom random) => Math.Round((bellC + _stripOffset + random.Normal(0.6)) / 2.0) * 2.0;

    private double Loss(double convection, double squareMetres, double c) =>
        c <= _room
            ? 0
            : (convection * Math.Pow(c - _room, 1.25))
                + (0.4 * Sigma * squareMetres * (Math.Pow(c + 273.15, 4) - Math.Pow(_room + 273.15, 4)));

    /// <summary>Antoine's equation for water from 99 to 374 degC, mmHg (constants from memory).</summary>
    private double Gauge(double c) =>
        Math.Max(0, (Math.Pow(10, 8.14019 - (1810.94 / (244.485 + Math.Max(c, 20)))) / 750.062) - _atmosphereBar);
}
