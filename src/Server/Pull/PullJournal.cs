using System.Globalization;
using System.Text;
using System.Text.Json;
using RuddySpring.Core;
using RuddySpring.Core.Coaching;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Instruments;
using RuddySpring.Server.Prepare;
using RuddySpring.Store;

namespace RuddySpring.Server.Pull;

/// <summary>What was expected of a puck before it was pulled.</summary>
/// <param name="ResistanceBarSPerMl">Its resistance swollen and fresh, 0.2 to 200.</param>
/// <param name="SdLog">Standard deviation of the logarithm of that.</param>
public sealed record ExpectedPuck(double ResistanceBarSPerMl, double SdLog);

/// <summary>How a pull began: all that is needed to save it later.</summary>
/// <param name="Expected">What was expected of the puck.</param>
/// <param name="Basket">Null for the machine's own.</param>
/// <param name="Learned">What earlier pulls taught of puck, spout and scale; null where none did.</param>
/// <param name="LetGoSeconds">How long this hand goes on after the cue, s.</param>
/// <param name="Scale">Name of the scale; null where none tells.</param>
/// <param name="Lands">Times to the yield that count as landing here; null for the plan's own.</param>
/// <param name="Water">The water's course through the shot; null where only its mean is known.</param>
public sealed record PullStart(
    string Id,
    DateTime StartedAt,
    Sheet Sheet,
    PullPlan Plan,
    Machine Machine,
    string MachineName,
    double WaterC,
    ExpectedPuck? Expected,
    Basket? Basket = null,
    PuckMemory? Learned = null,
    double LetGoSeconds = LetGo.UsualSeconds,
    string? Scale = null,
    WaterCourse? Water = null,
    TimeBand? Lands = null
)
{
    // a grind that nobody knows anything of (common practice)
    private static readonly ExpectedPuck Anything = new(3.5, 0.5);
    private static readonly FieldRange HandLetsGo = new("letGoSeconds", "Hand that lets go", 0.05, 10, "s");

    /// <summary>A tracker for this pull, with a coach at its elbow.</summary>
    public PullTracker Tracker() => new(Aimed, Machine, Sheet.YieldGrams, new LiveCoach(Believed(), LetGoSeconds));

    private PullPlan Aimed => Lands is null ? Plan : Plan with { Lands = Lands };

    /// <summary>What is believed of the shot before it is pulled.</summary>
    public PuckBelief Believed()
    {
        var expected = Expected ?? Anything;
        var shot = ShotConditions.Of(
            Machine,
            Aimed,
            Sheet.DoseGrams,
            Sheet.YieldGrams,
            Math.Clamp(WaterC, 20, 99),
            basket: Basket,
            preparation: Sheet.Preparation
        ) with
        {
            Water = (Water ?? WaterCourse.Steady(WaterC)).Within(20, 99),
        };
        shot = shot.WithResistance(Math.Clamp(expected.ResistanceBarSPerMl, 0.3, 60));
        return Learned?.Expect(shot, expected.SdLog) ?? PuckBelief.Before(shot, expected.SdLog);
    }

    /// <summary>Which spout the coffee leaves by.</summary>
    public string Holder => Taught.Holder(Sheet.MachineId, Sheet.Preparation?.Bottomless ?? false);

    /// <summary>What its trace is read with.</summary>
    public ShotContext Context => ShotRecording.Context(Sheet.DoseGrams, WaterC, Machine, Plan, Basket);

    /// <summary>The start with everything in it checked, as it comes from a file.</summary>
    /// <exception cref="FieldRangeException">A number is out of range.</exception>
    /// <exception cref="DoesNotFitException">Something is missing or does not go together.</exception>
    public PullStart Checked()
    {
        if (Sheet is null || Plan?.Phases is null || Machine is null)
            throw new DoesNotFitException("journal", "It is of another version.");
        PuckParameters.Dose.Check(Sheet.DoseGrams);
        CupVolumes.Yield.Check(Sheet.YieldGrams);
        PuckParameters.WaterTemperature.Check(WaterC);
        Plan.Checked();
        Machine.Checked();
        Basket?.Checked();
        Learned?.Checked();
        Water?.Checked();
        HandLetsGo.Check(LetGoSeconds);
        if (Lands is not null)
            Aimed.Checked();
        if (Expected is { } puck && !(puck.ResistanceBarSPerMl is > 0 and < 1000 && puck.SdLog is > 0 and < 5))
            throw new DoesNotFitException("journal", "What was expected of the puck makes no sense.");
        return this;
    }
}

/// <summary>A pull that was found in the journal: it never came to its end.</summary>
/// <param name="CutShort">Whether more was in the file than a pull can have.</param>
public sealed record JournalledPull(
    PullStart Start,
    IReadOnlyList<TimedSample> Samples,
    IReadOnlyList<(string Moment, double At)> Marks,
    double? StartedByHandAt,
    bool CutShort
);

/// <summary>A file of the journal: a pull, or why it is none.</summary>
/// <param name="Id">From its name.</param>
/// <param name="WrittenAt">When it was last written, UTC.</param>
/// <param name="Pull">Null where it cannot be read.</param>
/// <param name="Problem">Why; null where it can.</param>
public sealed record JournalFile(string Id, DateTime WrittenAt, JournalledPull? Pull, string? Problem);

/// <summary>
/// A file for each pull in progress, so that a crash loses at most half a second. Plain lines: one JSON line for the start, then
/// <c>channel seconds value</c>, or <c>mark moment seconds</c>, or <c>begin seconds</c>. What is written is flushed to the disk;
/// a write that fails half-way is cut off again before the next. A last line cut short is left out.
/// </summary>
public sealed class PullJournal(string dataFolder)
{
    // four channels at 100 a second for the longest pull, and some
    private const int MostSamples = 400_000;
    private const long MostBytes = 16 * 1024 * 1024;
    private const double MostSeconds = 3600;
    private const string Extension = ".pull";
    private readonly string _folder = Path.Combine(dataFolder, "journal");
    private readonly Lock _lock = new();
    private readonly Dictionary<string, long> _written = [];

    /// <summary>The first line of a pull.</summary>
    public static string StartLine(PullStart start) => JsonSerializer.Serialize(start, RuddyContext.Json) + "\n";

    /// <summary>The line of a sample.</summary>
    public static string SampleLine(TimedSample s) =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"{s.Channel} {s.ServerSeconds:0.0000} {s.Value:0.####}{(s.Origin == Origin.Followed ? " followed" : "")}\n"
        );

    /// <summary>The line of a marked moment.</summary>
    public static string MarkLine(string moment, double seconds) =>
        string.Create(CultureInfo.InvariantCulture, $"mark {moment} {seconds:0.0000}\n");

    /// <summary>The line that says that the brewer started the clock.</summary>
    public static string BeginLine(double seconds) => string.Create(CultureInfo.InvariantCulture, $"begin {seconds:0.0000}\n");

    /// <summary>A pull may be written from now on. Touches no disk.</summary>
    public void Open(string id)
    {
        lock (_lock)
            _written[id] = 0;
    }

    /// <summary>Appends lines and has the disk keep them; nothing for a pull that was closed.</summary>
    /// <exception cref="IOException">They could not be written: the whole text is to be given again.</exception>
    public void Append(string id, string lines)
    {
        lock (_lock)
        {
            if (!_written.TryGetValue(id, out var length))
                return;
            Directory.CreateDirectory(_folder);
            using var file = new FileStream(PathOf(id), FileMode.OpenOrCreate, FileAccess.Write, FileShare.Read, bufferSize: 0);
            file.SetLength(length); // what a failed write left is no line
            file.Position = length;
            file.Write(Encoding.UTF8.GetBytes(lines));
            file.Flush(flushToDisk: true);
            _written[id] = file.Length;
        }
    }

    /// <summary>Removes the file of a pull that was saved or never begun.</summary>
    public void Close(string id)
    {
        lock (_lock)
        {
            _written.Remove(id);
            if (IsId(id) && Directory.Exists(_folder))
                File.Delete(PathOf(id));
        }
    }

    /// <summary>Puts a file that cannot be read out of the way, still in the journal's folder.</summary>
    public void SetAside(string id)
    {
        lock (_lock)
        {
            if (IsId(id) && File.Exists(PathOf(id)))
                File.Move(PathOf(id), PathOf(id) + ".unread", overwrite: true);
        }
    }

    /// <summary>Every file in the journal but those of pulls that are under way, oldest first. Changes nothing.</summary>
    public IReadOnlyList<JournalFile> Unfinished(IReadOnlyCollection<string> underWay) =>
        !Directory.Exists(_folder)
            ? []
            :
            [
                .. new DirectoryInfo(_folder)
                    .GetFiles("*" + Extension)
                    .Where(f =>
                        !underWay.Contains(Path.GetFileNameWithoutExtension(f.Name))
                        && IsId(Path.GetFileNameWithoutExtension(f.Name))
                    )
                    .OrderBy(f => f.LastWriteTimeUtc)
                    .Select(Read),
            ];

    /// <summary>Whether a name is one that a pull gets: nothing else names a file here.</summary>
    private static bool IsId(string id) => id.Length == 32 && id.All(char.IsAsciiHexDigitLower);

    private JournalFile Read(FileInfo file)
    {
        var id = Path.GetFileNameWithoutExtension(file.Name);
        JournalFile Unreadable(string why) => new(id, file.LastWriteTimeUtc, null, why);
        try
        {
            if (file.Length > MostBytes)
                return Unreadable($"it is larger than {MostBytes / 1024 / 1024} MB.");
            string[] lines;
            lock (_lock)
                lines = File.ReadAllText(file.FullName).Split('\n')[..^1]; // what follows the last line end was cut short
            if (lines.Length == 0)
                return Unreadable("it is empty.");
            var start = JsonSerializer.Deserialize<PullStart>(lines[0], RuddyContext.Json)?.Checked();
            if (start is null)
                return Unreadable("its first line is missing.");
            return start.Id == id
                ? new(id, file.LastWriteTimeUtc, Lines(start, lines), null)
                : Unreadable("its name and its contents do not match.");
        }
        catch (Exception error)
            when (error is JsonException or NotSupportedException or ArgumentException or NullReferenceException)
        {
            return Unreadable("it was written by another version, or damaged.");
        }
        catch (Exception error) when (error is IOException or UnauthorizedAccessException)
        {
            return Unreadable("the disk cannot read it.");
        }
    }

    private static JournalledPull Lines(PullStart start, string[] lines)
    {
        var samples = new List<TimedSample>();
        var marks = new List<(string, double)>();
        double? begun = null;
        foreach (var line in lines.Skip(1).Take(MostSamples))
        {
            var words = line.Split(' ');
            if (words is ["begin", var at] && Seconds(at, out var beginAt))
                begun = beginAt;
            else if (words is ["mark", var moment, var markAt] && PullTracker.IsMoment(moment) && Seconds(markAt, out var t))
                marks.Add((moment, t));
            else if (
                words is [var name, var secondsText, var valueText, .. var rest]
                && rest is ([] or ["followed"])
                && Enum.TryParse<Channel>(name, out var channel)
                && Enum.IsDefined(channel)
                && Seconds(secondsText, out var seconds)
                && Number(valueText, out var value)
                && ChannelRanges.Of(channel).Holds(value)
            )
                samples.Add(new(channel, seconds, value, rest.Length > 0 ? Origin.Followed : Origin.Measured));
        }

        return new(start, samples, marks, begun, lines.Length - 1 > MostSamples);
    }

    private static bool Seconds(string text, out double value) => Number(text, out value) && value is >= -1 and <= MostSeconds;

    private static bool Number(string text, out double value) =>
        double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out value) && double.IsFinite(value);

    private string PathOf(string id) => Path.Combine(_folder, id + Extension);
}
