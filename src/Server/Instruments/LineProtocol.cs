using System.Text.Json;
using RuddySpring.Core;
using RuddySpring.Core.Traces;

namespace RuddySpring.Server.Instruments;

/// <summary>What a device said it measures: channel and factor to the channel's own unit.</summary>
/// <param name="Channel">The channel.</param>
/// <param name="ToUnit">From the device's unit to bar, g or degC.</param>
/// <param name="Range">What is believed, in the channel's own unit.</param>
public sealed record DeclaredChannel(Channel Channel, Func<double, double> ToUnit, FieldRange Range);

/// <summary>A line that says who the device is.</summary>
public sealed record Hello(string Device, IReadOnlyDictionary<string, DeclaredChannel> Channels);

/// <summary>A reading: time in s on the device's own clock, value in the channel's own unit.</summary>
public readonly record struct LineSample(Channel Channel, double DeviceSeconds, double Value);

/// <summary>A line that cannot be used, with a sentence for the person who built the device.</summary>
public sealed class LineProblemException(string sentence) : Exception(sentence);

/// <summary>
/// The open line protocol, version 1: one JSON object a line. Parsing only; docs/line-protocol.md is its description.
/// </summary>
public static class LineProtocol
{
    /// <summary>What a device says hello with.</summary>
    public const string Version = "ruddy-line/1";

    /// <summary>Longest line in bytes.</summary>
    public const int LongestLine = 1024;

    private static readonly JsonDocumentOptions Strict = new() { MaxDepth = 4 };

    private static readonly Dictionary<
        string,
        (Channel Channel, FieldRange Range, Dictionary<string, Func<double, double>> Units)
    > Known = new()
    {
        ["pressure"] = (
            Channel.Pressure,
            ChannelRanges.Pressure,
            new()
            {
                ["bar"] = v => v,
                ["psi"] = v => v * Units.BarPerPsi,
                ["kPa"] = v => v * Units.BarPerKpa,
            }
        ),
        ["weight"] = (Channel.Weight, ChannelRanges.Weight, new() { ["g"] = v => v, ["oz"] = v => v * Units.GramsPerOunce }),
        ["temperature"] = (
            Channel.Temperature,
            ChannelRanges.Temperature,
            new() { ["degC"] = v => v, ["degF"] = Units.CelsiusFromFahrenheit }
        ),
        ["group"] = (Channel.Group, ChannelRanges.Group, new() { ["degC"] = v => v, ["degF"] = Units.CelsiusFromFahrenheit }),
        ["force"] = (Channel.Force, ChannelRanges.Force, new() { ["kgf"] = v => v, ["N"] = v => v / Units.NewtonsPerKgf }),
    };

    /// <summary>Parses a hello line.</summary>
    /// <exception cref="LineProblemException">Not a hello, or one that is not understood.</exception>
    public static Hello ParseHello(string line)
    {
        using var json = Parse(line);
        var root = json.RootElement;
        if (!root.TryGetProperty("hello", out var version))
            throw new LineProblemException(
                $"The first line must say hello: {{\"hello\":\"{Version}\",\"device\":\"...\",\"channels\":{{...}}}}."
            );
        if (version.ValueKind != JsonValueKind.String || version.GetString() != Version)
            throw new LineProblemException($"This server speaks {Version}.");
        var device =
            root.TryGetProperty("device", out var name) && name.ValueKind == JsonValueKind.String ? name.GetString()!.Trim() : "";
        if (device.Length is 0 or > 60)
            throw new LineProblemException("device must be a name of 1 to 60 characters.");
        if (!root.TryGetProperty("channels", out var channels) || channels.ValueKind != JsonValueKind.Object)
            throw new LineProblemException($"channels must name at least one of {string.Join(", ", Known.Keys)} with its unit.");
        var declared = new Dictionary<string, DeclaredChannel>();
        foreach (var channel in channels.EnumerateObject())
        {
            if (!Known.TryGetValue(channel.Name, out var known))
                throw new LineProblemException(
                    $"channel {Short(channel.Name)} is not known; known are {string.Join(", ", Known.Keys)}."
                );
            var unit = channel.Value.ValueKind == JsonValueKind.String ? channel.Value.GetString()! : "";
            if (!known.Units.TryGetValue(unit, out var toUnit))
                throw new LineProblemException(
                    $"unit {Short(unit)} does not go with {channel.Name}; use one of {string.Join(", ", known.Units.Keys)}."
                );
            declared[channel.Name] = new(known.Channel, toUnit, known.Range);
        }

        return declared.Count > 0 ? new(device, declared) : throw new LineProblemException("channels is empty.");
    }

    /// <summary>Parses a line of readings.</summary>
    /// <exception cref="LineProblemException">The line cannot be used; none of its readings is taken.</exception>
    public static IReadOnlyList<LineSample> ParseSamples(string line, Hello hello)
    {
        using var json = Parse(line);
        var root = json.RootElement;
        if (
            !root.TryGetProperty("t", out var time)
            || time.ValueKind != JsonValueKind.Number
            || !time.TryGetDouble(out var seconds)
            || seconds is not (>= 0 and < 1e10)
        )
            throw new LineProblemException("t must be the device's time in seconds, 0 or more.");
        var samples = new List<LineSample>(1);
        foreach (var property in root.EnumerateObject())
        {
            if (property.Name == "t")
                continue;
            if (!hello.Channels.TryGetValue(property.Name, out var channel))
                throw new LineProblemException($"{Short(property.Name)} was not declared in hello.");
            if (property.Value.ValueKind != JsonValueKind.Number || !property.Value.TryGetDouble(out var raw))
                throw new LineProblemException($"{property.Name} must be a number.");
            var value = channel.ToUnit(raw);
            if (!double.IsFinite(value) || value < channel.Range.Min || value > channel.Range.Max)
                throw new LineProblemException(channel.Range.Sentence(value));
            samples.Add(new(channel.Channel, seconds, value));
        }

        return samples.Count > 0 ? samples : throw new LineProblemException("the line holds no reading.");
    }

    private static JsonDocument Parse(string line)
    {
        try
        {
            var json = JsonDocument.Parse(line, Strict);
            if (json.RootElement.ValueKind == JsonValueKind.Object)
                return json;
            json.Dispose();
        }
        catch (JsonException)
        {
            // said below
        }

        throw new LineProblemException($"this is not a JSON object: {Short(line)}");
    }

    private static string Short(string text) =>
        new([.. (text.Length <= 40 ? text : text[..40] + "...").Select(c => char.IsControl(c) ? '?' : c)]);
}
