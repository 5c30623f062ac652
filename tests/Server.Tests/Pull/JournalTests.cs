using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Instruments;
using RuddySpring.Server.Prepare;
using RuddySpring.Server.Pull;

namespace RuddySpring.Server.Tests.Pull;

/// <summary>The journal of a pull as it is found after something went wrong.</summary>
public sealed class JournalTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("ruddy-journal-").FullName;
    private readonly PullJournal _journal;

    public JournalTests() => _journal = new PullJournal(_folder);

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    private static string Id(char letter) => new(letter, 32);

    private string FileOf(string id) => Path.Combine(_folder, "journal", id + ".pull");

    private static PullStart Start(string id) =>
        new(
            id,
            new DateTime(2026, 2, 1, 7, 0, 0, DateTimeKind.Utc),
            new Sheet(1, 1, 2, 1, 20, 15, 32, "early-peak"),
            ShippedPlans.EarlyPeak,
            FamilyDefaults.Of(MachineFamily.PortableLever).Machine,
            "Pack lever",
            89,
            null
        );

    private void Begin(string id)
    {
        _journal.Open(id);
        _journal.Append(id, PullJournal.StartLine(Start(id)));
    }

    private void Append(string id, params TimedSample[] samples) =>
        _journal.Append(id, string.Concat(samples.Select(PullJournal.SampleLine)));

    private JournalledPull Only() => Assert.IsType<JournalledPull>(Assert.Single(_journal.Unfinished([])).Pull);

    [Fact]
    public void What_was_appended_is_found_again()
    {
        var id = Id('a');
        Begin(id);
        _journal.Append(id, PullJournal.BeginLine(0.5));
        Append(
            id,
            new(Channel.Pressure, 1.25, 2.51),
            new(Channel.Weight, 1.3, 0.4),
            new(Channel.Pressure, 1.4, 2.6, Origin.Followed)
        );
        _journal.Append(id, PullJournal.MarkLine("drops", 7.125));
        var pull = Only();
        Assert.Equal(15, pull.Start.Sheet.DoseGrams);
        Assert.Equal(ShippedPlans.EarlyPeak.Phases, pull.Start.Plan.Phases);
        Assert.Equal(
            [
                new TimedSample(Channel.Pressure, 1.25, 2.51),
                new TimedSample(Channel.Weight, 1.3, 0.4),
                new TimedSample(Channel.Pressure, 1.4, 2.6, Origin.Followed),
            ],
            pull.Samples
        );
        Assert.Equal(("drops", 7.125), Assert.Single(pull.Marks));
        Assert.Equal(0.5, pull.StartedByHandAt);
    }

    [Fact]
    public void A_last_line_cut_short_is_left_out()
    {
        Begin(Id('b'));
        Append(Id('b'), new TimedSample(Channel.Pressure, 1, 2));
        File.AppendAllText(FileOf(Id('b')), "Pressure 1.0500 8");
        Assert.Single(Only().Samples);
    }

    [Fact]
    public void What_a_failed_write_left_behind_is_cut_off_by_the_next()
    {
        Begin(Id('b'));
        File.AppendAllText(FileOf(Id('b')), "Pressure 1.0"); // a full disk took half a line
        Append(Id('b'), new TimedSample(Channel.Pressure, 2, 3));
        Assert.Equal([new TimedSample(Channel.Pressure, 2, 3)], Only().Samples);
    }

    [Fact]
    public void Lines_that_make_no_sense_are_left_out()
    {
        Begin(Id('c'));
        File.AppendAllText(
            FileOf(Id('c')),
            "\nPressure one two\nApplause 1 2\nPressure 1 2 3\nmark\nmark applause 3\nPressure 1 1e308\nPressure 1e300 "
                + "3\nWeight NaN 3\n17 2 3\nPressure 2.0 3.5\n"
        );
        Assert.Equal([new TimedSample(Channel.Pressure, 2.0, 3.5)], Only().Samples);
        Assert.Empty(Only().Marks);
    }

    [Theory]
    [InlineData("", "empty")]
    [InlineData("no json at all\n", "another version")]
    [InlineData("{\"id\":\"half", "empty")]
    [InlineData("{\"id\":\"dddddddddddddddddddddddddddddddd\"}\n", "another version")]
    public void A_file_that_cannot_be_read_is_told_and_hides_no_other(string text, string why)
    {
        Begin(Id('e'));
        File.WriteAllText(FileOf(Id('d')), text);
        var files = _journal.Unfinished([]);
        Assert.Equal(2, files.Count);
        Assert.Contains(why, files.Single(f => f.Id == Id('d')).Problem!, StringComparison.Ordinal);
        Assert.NotNull(files.Single(f => f.Id == Id('e')).Pull);
        _journal.SetAside(Id('d'));
        Assert.Equal(Id('e'), Assert.Single(_journal.Unfinished([])).Id);
        Assert.True(File.Exists(FileOf(Id('d')) + ".unread"));
    }

    [Fact] // a path in a file's id once deleted a file outside the folder
    public void The_id_is_the_files_name_and_never_what_the_file_says()
    {
        var outside = Path.Combine(_folder, "precious.pull");
        File.WriteAllText(outside, "keep me");
        Directory.CreateDirectory(Path.Combine(_folder, "journal"));
        File.WriteAllText(FileOf(Id('f')), PullJournal.StartLine(Start("../precious")));
        Assert.Contains("do not match", Assert.Single(_journal.Unfinished([])).Problem!, StringComparison.Ordinal);
        _journal.Close("../precious");
        _journal.SetAside("../precious");
        Assert.True(File.Exists(outside));
    }

    [Fact]
    public void A_huge_file_is_not_read_and_too_many_samples_are_cut()
    {
        Begin(Id('a'));
        var line = PullJournal.SampleLine(new(Channel.Pressure, 1, 2));
        File.AppendAllText(FileOf(Id('a')), string.Concat(Enumerable.Repeat(line, 450_000)));
        Assert.True(Only().CutShort);
        File.AppendAllText(FileOf(Id('a')), new string('x', 17 * 1024 * 1024));
        Assert.Contains("larger than", Assert.Single(_journal.Unfinished([])).Problem!, StringComparison.Ordinal);
    }

    [Fact]
    public void The_pull_under_way_is_not_offered_back_and_a_closed_one_is_gone()
    {
        Begin(Id('e'));
        Begin(Id('f'));
        Assert.Equal(Id('f'), Assert.Single(_journal.Unfinished([Id('e')])).Id);
        _journal.Close(Id('f'));
        Assert.Empty(_journal.Unfinished([Id('e')]));
        Append(Id('f'), new TimedSample(Channel.Pressure, 1, 2)); // comes late, and makes no file again
        Assert.Empty(_journal.Unfinished([Id('e')]));
    }
}
