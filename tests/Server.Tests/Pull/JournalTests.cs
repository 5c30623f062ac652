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

    private string FileOf(string id) => Path.Combine(_folder, "journal", id + ".pull");

    private void Begin(string id) => _journal.Begin(new(
        id, new DateTime(2026, 2, 1, 7, 0, 0, DateTimeKind.Utc), new Sheet(1, 1, 2, 1, 20, 15, 32, "early-peak"), ShippedPlans.EarlyPeak,
        FamilyDefaults.Of(MachineFamily.PortableLever).Machine, "Pack lever", 89, null));

    [Fact]
    public void What_was_appended_is_found_again()
    {
        Begin("a");
        _journal.AppendBegin("a", 0.5);
        _journal.Append("a", [new(Channel.Pressure, 1.25, 2.51), new(Channel.Weight, 1.3, 0.4), new(Channel.Pressure, 1.4, 2.6, Origin.Followed)]);
        _journal.AppendMark("a", "drops", 7.125);
        var pull = Assert.Single(_journal.Unfinished([]));
        Assert.Equal(15, pull.Start.Sheet.DoseGrams);
        Assert.Equal(ShippedPlans.EarlyPeak.Phases, pull.Start.Plan.Phases);
        Assert.Equal([new TimedSample(Channel.Pressure, 1.25, 2.51), new TimedSample(Channel.Weight, 1.3, 0.4), new TimedSample(Channel.Pressure, 1.4, 2.6, Origin.Followed)], pull.Samples);
        Assert.Equal(("drops", 7.125), Assert.Single(pull.Marks));
        Assert.Equal(0.5, pull.StartedByHandAt);
    }

    [Fact]
    public void A_last_line_cut_short_is_left_out()
    {
        Begin("b");
        _journal.Append("b", [new(Channel.Pressure, 1, 2)]);
        File.AppendAllText(FileOf("b"), "Pressure 1.0500 8");
        Assert.Single(_journal.Unfinished([])[0].Samples);
    }

    [Fact]
    public void Lines_that_make_no_sense_are_left_out()
    {
        Begin("c");
        File.AppendAllText(FileOf("c"), "\nPressure one two\nApplause 1 2\nPressure 1 2 3\nmark\nPressure 2.0 3.5\n");
        Assert.Equal([new TimedSample(Channel.Pressure, 2.0, 3.5)], _journal.Unfinished([])[0].Samples);
    }

    [Theory]
    [InlineData("")]
    [InlineData("no json at all\n")]
    [InlineData("{\"id\":\"half")]
    public void A_file_without_its_first_line_is_no_pull(string text)
    {
        Directory.CreateDirectory(Path.Combine(_folder, "journal"));
        File.WriteAllText(FileOf("d"), text);
        Assert.Empty(_journal.Unfinished([]));
    }

    [Fact]
    public void The_pull_under_way_is_not_offered_back_and_a_closed_one_is_gone()
    {
        Begin("e");
        Begin("f");
        Assert.Equal("f", Assert.Single(_journal.Unfinished(["e"])).Start.Id);
        _journal.Close("f");
        Assert.Empty(_journal.Unfinished(["e"]));
    }
}
