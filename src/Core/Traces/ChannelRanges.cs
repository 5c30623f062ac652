namespace RuddySpring.Core.Traces;

/// <summary>What is believed of each quantity that an instrument, a file or a person tells: one range for one quantity, wherever
/// it comes from.</summary>
public static class ChannelRanges
{
    public static readonly FieldRange Pressure = new("pressure", "Pressure", -1, 25, "bar");
    public static readonly FieldRange Weight = new("weight", "Weight", -500, 5000, "g");
    public static readonly FieldRange Temperature = new("temperature", "Temperature", -20, 200, "degC");
    public static readonly FieldRange Group = new("group", "Group temperature", -10, 150, "degC");
    public static readonly FieldRange Force = new("force", "Hand force", -20, 120, "kgf");
    public static readonly FieldRange Flow = new("flow", "Flow", -50, 50, "ml/s");

    /// <summary>The range of a channel.</summary>
    public static FieldRange Of(Channel channel) =>
        channel switch
        {
            Channel.Pressure => Pressure,
            Channel.Weight => Weight,
            Channel.Temperature => Temperature,
            Channel.Group => Group,
            Channel.Force => Force,
            _ => Flow,
        };
}
