namespace RuddySpring.Core.Shots;

/// <summary>
/// How coffee gets from the puck to a scale's display: it hangs at basket and spout before it falls, and the scale shows it late.
/// Both are first-order delays (common practice: the stream goes on for a second after the pressure is gone; kitchen scales lag
/// by 0.2 to 0.8 s).
/// </summary>
/// <param name="SpoutDelaySeconds">Time constant at basket and spout, s, above 0.</param>
/// <param name="ScaleLagSeconds">Time constant of the scale, s, above 0.</param>
public sealed record CupPath(double SpoutDelaySeconds, double ScaleLagSeconds)
{
    /// <summary>What is taken where nothing has been learned.</summary>
    public static readonly CupPath Usual = new(0.45, 0.4);

    /// <summary>Share of what hangs at the spout that falls within some seconds, 0 to 1.</summary>
    public double ShareThatFalls(double seconds) => 1 - Math.Exp(-seconds / SpoutDelaySeconds);

    /// <summary>Share of what the scale is behind by that it shows within some seconds, 0 to 1.</summary>
    public double ShareThatShows(double seconds) => 1 - Math.Exp(-seconds / ScaleLagSeconds);
}

/// <summary>Coffee on its way: what hangs at the spout, what is in the cup, what the scale shows, all in g.</summary>
/// <param name="AtSpoutGrams">Has left the puck and not fallen.</param>
/// <param name="CupGrams">Has fallen.</param>
/// <param name="ShownGrams">Is on the display.</param>
public readonly record struct CupStream(double AtSpoutGrams, double CupGrams, double ShownGrams)
{
    /// <summary>All that has left the puck, g: what the cup holds when everything has dripped.</summary>
    public double LeftPuckGrams => AtSpoutGrams + CupGrams;

    /// <summary>The stream after a step in which so many g left the puck.</summary>
    /// <param name="grams">What left the puck within the step.</param>
    /// <param name="falls"><see cref="CupPath.ShareThatFalls"/> of the step.</param>
    /// <param name="shows"><see cref="CupPath.ShareThatShows"/> of the step.</param>
    public CupStream After(double grams, double falls, double shows)
    {
        var falling = (AtSpoutGrams + grams) * falls;
        var cup = CupGrams + falling;
        return new(AtSpoutGrams + grams - falling, cup, ShownGrams + ((cup - ShownGrams) * shows));
    }
}
