using System.Globalization;
using System.Text;
using System.Text.Json;
using RuddySpring.Core.Coaching;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Instruments;
using RuddySpring.Server.Prepare;
using RuddySpring.Store;

namespace RuddySpring.Server.Pull;

/// <summary>How a pull began: all that is needed to save it later.</summary>
/// <param name="Expected">What was expected of the puck.</param>
public sealed record PullStart(
    string Id, DateTime StartedAt, Sheet Sheet, PullPlan Plan, Machine Machine, string MachineName, double WaterC, ExpectedPuck? Expected)
{
    // a grind that nobody knows anything of (common practice)
    private static readonly ExpectedPuck Anything = new(3.5, 0.5);

    /// <summary>A tracker for this pull, with a coach at its elbow.</summary>
    public PullTracker Tracker() => new(
        Plan, Machine, Sheet.YieldGrams, new LiveCoach(Plan, Machine, Sheet.DoseGrams, Sheet.YieldGrams, WaterC, Expected ?? Anything));
}

/// <summary>A pull that was found in the journal: it never came to its end.</summary>
public sealed record JournalledPull(PullStart Start, IReadOnlyList<TimedSample> Samples, IReadOnlyList<(string Moment, double At)> Marks, double? StartedByHandAt);

/// <summary>
/// A file for each pull in progress, appended every half second, so that a crash loses at most that. Plain lines: one JSON line for the
/// start, then <c>channel seconds value</c>, or <c>mark moment seconds</c>, or <c>begin seconds</c>. A last line cut short is left out.
/// </summary>
public sealed class PullJournal(string dataFolder)
{
    private readonly string _folder = Path.Combine(dataFolder, "journal");
    private readonly Lock _lock = new();

    /// <summary>Opens the file of a new pull.</summary>
    public void Begin(PullStart start)
    {
        Directory.CreateDirectory(_folder);
        File.WriteAllText(PathOf(start.Id), JsonSerializer.Serialize(start, RuddyContext.Json) + "\n");
    }

    /// <summary>Appends samples, and makes the operating system keep them.</summary>
    public void Append(string id, IReadOnlyList<TimedSample> samples)
    {
        if (samples.Count == 0) return;
        var text = new StringBuilder();
        foreach (var s in samples) text.Append(CultureInfo.InvariantCulture, $"{s.Channel} {s.ServerSeconds:0.0000} {s.Value:0.####}{(s.Origin == Origin.Followed ? " followed" : "")}\n");
        AppendText(id, text.ToString());
    }

    /// <summary>Appends a marked moment.</summary>
    public void AppendMark(string id, string moment, double seconds) => AppendText(id, $"mark {moment} {seconds:0.0000}\n");

    /// <summary>Appends that the brewer started the clock.</summary>
    public void AppendBegin(string id, double seconds) => AppendText(id, $"begin {seconds:0.0000}\n");

    /// <summary>Removes the file of a pull that was saved or thrown away.</summary>
    public void Close(string id)
    {
        lock (_lock) File.Delete(PathOf(id));
    }

    /// <summary>Every pull in the journal but those that are under way.</summary>
    public IReadOnlyList<JournalledPull> Unfinished(IReadOnlyCollection<string> underWay) => !Directory.Exists(_folder)
        ? []
        : [.. Directory.GetFiles(_folder, "*.pull")
            .Where(f => !underWay.Contains(Path.GetFileNameWithoutExtension(f)))
            .Select(Read).OfType<JournalledPull>().OrderBy(p => p.Start.StartedAt)];

    private JournalledPull? Read(string file)
    {
        string[] lines;
        lock (_lock) lines = File.ReadAllText(file).Split('\n')[..^1]; // what follows the last line end was cut short
        if (lines.Length == 0) return null;
        PullStart? start;
        try
        {
            start = JsonSerializer.Deserialize<PullStart>(lines[0], RuddyContext.Json);
        }
        catch (JsonException)
        {
            return null;
        }

        if (start is null) return null;
        var samples = new List<TimedSample>();
        var marks = new List<(string, double)>();
        double? begun = null;
        foreach (var line in lines.Skip(1))
        {
            var words = line.Split(' ');
            if (words is ["begin", var at] && Number(at, out var beginAt)) begun = beginAt;
            else if (words is ["mark", var moment, var markAt] && Number(markAt, out var t)) marks.Add((moment, t));
            else if (words is [var name, var secondsText, var valueText, .. var rest] && rest is ([] or ["followed"]) && Enum.TryParse<Channel>(name, out var channel)
                && Number(secondsText, out var seconds) && Number(valueText, out var value)) samples.Add(new(channel, seconds, value, rest.Length > 0 ? Origin.Followed : Origin.Measured));
        }

        return new(start, samples, marks, begun);
    }

    private static bool Number(string text, out double value) =>
        double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out value);

    private void AppendText(string id, string text)
    {
        lock (_lock)
        {
            using var file = new FileStream(PathOf(id), FileMode.Append, FileAccess.Write, FileShare.Read);
            file.Write(Encoding.UTF8.GetBytes(text));
            file.Flush(flushToDisk: false);
        }
    }

    private string PathOf(string id) => Path.Combine(_folder, id + ".pull");
}
