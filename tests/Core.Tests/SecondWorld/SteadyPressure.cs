namespace RuddySpring.Core.Tests.SecondWorld;

/// <summary>What anybody could measure of a puck of any world: its resistance under a steady pressure.</summary>
public static class SteadyPressure
{
    private const double Bar = 6;

    /// <summary>Bar s a gram over 10 g under a steady pressure, of a puck that was first wetted gently and has swollen: 2.5 bar
    /// until drops and five seconds more, then three seconds of 6 bar before anything counts.</summary>
    public static double Resistance(Func<double, double, double> cupAfterStep)
    {
        const double step = 0.02;
        double? drops = null,
            began = null;
        var from = 0.0;
        for (var t = step; t < 200; t += step)
        {
            var pressed = t > drops + 5;
            var cup = cupAfterStep(pressed ? Bar : 2.5, step);
            if (cup > 0.5)
                drops ??= t;
            if (t > drops + 8 && began is null)
                (began, from) = (t, cup);
            if (began is { } at && cup > from + 10)
                return Bar * (t - at) / (cup - from);
        }

        return double.NaN;
    }
}
