namespace RuddySpring.Core.Traces;

/// <summary>How smooth an arm is: the pressure against its own mean over a second, root mean square, while it should be
/// held.</summary>
public static class ArmShake
{
    private const int FewestSamples = 10;
    private const double MovesBar = 0.3;

    /// <summary>The shake in bar; null where there is too little to tell.</summary>
    /// <param name="bar">Pressures, evenly spaced.</param>
    /// <param name="targetBar">What the plan wanted at the same times; what it moves by more than 0.3 bar a second is left
    /// out.</param>
    /// <param name="half">Half the window, samples: half a second of them.</param>
    public static double? Of(IReadOnlyList<double> bar, IReadOnlyList<double> targetBar, int half)
    {
        var squares = new List<double>();
        for (var i = half; i < bar.Count - half; i++)
        {
            if (Math.Abs(targetBar[i + half] - targetBar[i - half]) > MovesBar)
                continue;
            var mean = 0.0;
            for (var k = i - half; k <= i + half; k++)
                mean += bar[k];
            squares.Add(Math.Pow(bar[i] - (mean / ((2 * half) + 1)), 2));
        }

        return squares.Count < FewestSamples ? null : Math.Sqrt(squares.Average());
    }
}
