using System.Globalization;
using CsvHelper;
using RuddySpring.Core.Traces;

namespace RuddySpring.Server.Exchange;

/// <summary>
/// Writes a trace as CSV (RFC 4180): a row for each time at which any instrument spoke, empty cells where one did not. It reads
/// back without loss.
/// </summary>
public static class TraceCsvWriter
{
    private static readonly Dictionary<Channel, string> Names = new()
    {
        [Channel.Pressure] = "pressure (bar)",
        [Channel.Weight] = "weight (g)",
        [Channel.Temperature] = "temperature (degC)",
        [Channel.Group] = "group (degC)",
        [Channel.Flow] = "flow (ml/s)",
        [Channel.Force] = "force (kgf)",
    };

    /// <summary>The text of the file, with CR LF line ends as the standard wants.</summary>
    public static string Write(Trace trace)
    {
        using var text = new StringWriter { NewLine = "\r\n" };
        using var csv = new CsvWriter(
            text,
            new CsvHelper.Configuration.CsvConfiguration(CultureInfo.InvariantCulture) { NewLine = "\r\n" }
        );
        csv.WriteField("time (s)");
        foreach (var series in trace.Series)
            csv.WriteField(Names[series.Channel]);
        csv.NextRecord();
        var positions = new int[trace.Series.Count];
        while (true)
        {
            var next = double.PositiveInfinity;
            for (var i = 0; i < positions.Length; i++)
            {
                if (positions[i] < trace.Series[i].Count)
                    next = Math.Min(next, trace.Series[i].Seconds[positions[i]]);
            }

            if (double.IsPositiveInfinity(next))
                break;
            csv.WriteField(next.ToString("0.###", CultureInfo.InvariantCulture));
            for (var i = 0; i < positions.Length; i++)
            {
                var series = trace.Series[i];
                var has = positions[i] < series.Count && series.Seconds[positions[i]] <= next;
                csv.WriteField(has ? series.Values[positions[i]++].ToString("0.###", CultureInfo.InvariantCulture) : "");
            }

            csv.NextRecord();
        }

        return text.ToString();
    }
}
