using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Core.Coaching;
using RuddySpring.Core.Reasoning;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Hosting;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Exchange.Households;

/// <summary>Takes in shots with their traces, photos and the advice that was followed.</summary>
internal sealed class ShotIntake(IntakeDesk desk)
{
    private const int AtOnce = 100;
    private const int MostSamples = 100_000;
    private static readonly FieldRange Water = new("waterC", "Water at the puck", 0, 110, "degC");
    private static readonly FieldRange Measure = new("measures", "A measure", -100_000, 100_000, "");
    private static readonly FieldRange Second = new("seconds", "Time of a sample", 0, 3600, "s");
    private readonly List<(int Id, Shot Shot, Task Measured)> _waiting = [];
    private readonly HashSet<int> _found = [];
    private Dictionary<(DateTime At, int MachineId), Queue<int>>? _before;

    public async Task ShotAsync(FiledShot filed, CancellationToken cancel)
    {
        if (desk.Ids("shots").ContainsKey(filed.Id) || _waiting.Exists(w => w.Id == filed.Id))
            throw IntakeDesk.Twice(filed.Id);
        var pulledAt = desk.Moment(filed.PulledAt)!.Value;
        var machineId = desk.Refer("machines", filed.MachineId, "machineId")!.Value;
        var shot = Shot(filed, pulledAt, machineId);
        var trace = Trace(filed.Trace);
        CheckNumbers(filed.Marked, Second);
        CheckNumbers(filed.Measures, Measure);
        if (filed.PullId is { } pull && _waiting.Exists(w => w.Shot.PullId == pull))
            await FlushAsync(cancel);
        if (await HereAsync(filed.PullId, pulledAt, machineId, cancel) is { } known)
        {
            _found.Add(known);
            desk.Ids("shots")[filed.Id] = known;
            desk.Count(isNew: false);
            return;
        }

        desk.Count(isNew: true);
        var plan = filed.Plan.Checked();
        if (plan.Key.StartsWith("own-", StringComparison.Ordinal) && int.TryParse(plan.Key[4..], out var own))
            plan = desk.Ids("plans").TryGetValue(own, out var now) ? plan with { Key = $"own-{now}" } : plan;
        var puck = filed.Learned?.Puck?.Checked();
        if (!desk.IsStored)
        {
            desk.Ids("shots")[filed.Id] = desk.OnlyLookedAt();
            return;
        }

        var machine = (await desk.Db.Machines.FindAsync([machineId], cancel))!.Spec;
        var basket = shot.BasketId is { } basketId ? (await desk.Db.Baskets.FindAsync([basketId], cancel))!.Spec : null;
        shot.Measures = filed.Measures;
        // traces are measured beside the reading of the next entries
        var measured = Task.Run(
            () =>
            {
                ShotRecording.SetTrace(shot, plan, machine, basket, trace, filed.Marked, filed.Clock);
                shot.GroupC = filed.GroupC;
                shot.Trace.Learned = filed.Learned is { } learned
                    ? learned with
                    {
                        Puck = puck,
                        Holder = Taught.Holder(machineId, learned.Holder.EndsWith("bottomless", StringComparison.Ordinal)),
                    }
                    : null;
            },
            cancel
        );
        _waiting.Add((filed.Id, shot, measured));
        if (_waiting.Count >= AtOnce)
            await FlushAsync(cancel);
    }

    /// <summary>The number of a shot that was here before: the same pull, or one of the same machine and moment. Moments
    /// that a person typed may be alike, so that each shot is found once, and none that came with this file.</summary>
    private async Task<int?> HereAsync(string? pullId, DateTime pulledAt, int machineId, CancellationToken cancel)
    {
        // numbers of what is new here stand for nothing yet
        if (machineId < 0)
            return null;
        _before ??= await BeforeAsync(cancel);
        var pulled = pullId is null
            ? null
            : await desk.Db.Shots.Where(s => s.PullId == pullId).Select(s => (int?)s.Id).FirstOrDefaultAsync(cancel);
        if (pulled is not null || !_before.TryGetValue((pulledAt, machineId), out var alike))
            return pulled;
        while (alike.TryPeek(out var id))
        {
            if (!_found.Contains(id))
                return id;
            alike.Dequeue();
        }

        return null;
    }

    /// <summary>The shots that were here before, by moment and machine: asked once for all, no index leads to a moment.</summary>
    private async Task<Dictionary<(DateTime At, int MachineId), Queue<int>>> BeforeAsync(CancellationToken cancel)
    {
        var before = new Dictionary<(DateTime, int), Queue<int>>();
        var shots = desk
            .Db.Shots.OrderBy(s => s.Id)
            .Select(s => new
            {
                s.Id,
                s.PulledAt,
                s.MachineId,
            });
        await foreach (var shot in shots.AsAsyncEnumerable().WithCancellation(cancel))
        {
            if (!before.TryGetValue((shot.PulledAt, shot.MachineId), out var alike))
                before[(shot.PulledAt, shot.MachineId)] = alike = new(1);
            alike.Enqueue(shot.Id);
        }

        return before;
    }

    private Shot Shot(FiledShot filed, DateTime pulledAt, int machineId)
    {
        static int? Taste(int? mark) => mark is { } value ? (int)TasteMarks.Mark.Check(value) : null;
        return new()
        {
            PullId = filed.PullId is null ? null : Texts.Required(filed.PullId, "pullId", "Number of the pull"),
            PulledAt = pulledAt,
            Source = filed.Source,
            MachineId = machineId,
            BrewerId = desk.Refer("brewers", filed.BrewerId, "brewerId"),
            BagId = desk.Refer("bags", filed.BagId, "bagId"),
            GrinderId = desk.Refer("grinders", filed.GrinderId, "grinderId"),
            GrindSetting = filed.GrindSetting is { } grind ? Prepare.PrepareEndpoints.GrindSetting.Check(grind) : null,
            BasketId = desk.Refer("baskets", filed.BasketId, "basketId"),
            Preparation = filed.Preparation?.Checked(),
            DoseGrams = Core.Puck.PuckParameters.Dose.Check(filed.DoseGrams),
            YieldGrams = filed.YieldGrams == 0 ? 0 : Core.Shots.CupVolumes.Yield.Check(filed.YieldGrams),
            WaterC = filed.WaterC is { } water ? Water.Check(water) : null,
            GroupC = filed.GroupC is { } group ? ChannelRanges.Group.Check(group) : null,
            Seen = Texts.Lines(filed.Seen, "seen", "What was seen", 400),
            FileHash = filed.FileHash is null ? null : Texts.Optional(filed.FileHash, "fileHash", "Hash of the file", 64),
            Taste =
            {
                Sour = Taste(filed.Sour),
                Bitter = Taste(filed.Bitter),
                Dry = Taste(filed.Dry),
                Sweet = Taste(filed.Sweet),
                Body = Taste(filed.Body),
                Words = Texts.Lines(filed.Words, "words", "Words", 500),
            },
            Liking = filed.Liking is { } liking ? (int)TasteMarks.HowLiked.Check(liking) : null,
            Tapped = filed.Tapped,
            Before = filed.Before,
            Strength = filed.Strength is { } strength ? MeasuredExtraction.Strength.Check(strength) : null,
            Cause = filed.Cause is { } cause && CauseList.Find(cause) is not null ? cause : null,
            Notices = Texts.Lines(filed.Notices, "notices", "Notices", 4000),
            DeletedAt = desk.Moment(filed.BinnedAt),
        };
    }

    /// <summary>Every number of a record within a range.</summary>
    private static void CheckNumbers(object record, FieldRange range)
    {
        foreach (var property in record.GetType().GetProperties())
        {
            if (property.GetValue(record) is double number)
                (range with { Field = property.Name, Label = property.Name }).Check(number);
        }
    }

    private static Trace Trace(IReadOnlyList<FiledSeries> filed)
    {
        foreach (var series in filed)
        {
            var name = series.Channel.ToString().ToLowerInvariant();
            if (series.Seconds.Length != series.Values.Length)
                throw new DoesNotFitException(
                    "trace",
                    $"{name} has {series.Seconds.Length} times and {series.Values.Length} values; it must have as many of each."
                );
            if (series.Seconds.Length > MostSamples)
                throw new DoesNotFitException("trace", $"{name} has more than {MostSamples} samples.");
            for (var i = 0; i < series.Seconds.Length; i++)
            {
                Second.Check(series.Seconds[i]);
                ChannelRanges.Of(series.Channel).Check(series.Values[i]);
                if (i > 0 && series.Seconds[i] < series.Seconds[i - 1])
                    throw new DoesNotFitException("trace", $"The times of {name} go back at sample {i + 1}; they must rise.");
            }
        }

        if (filed.DistinctBy(s => s.Channel).Count() != filed.Count)
            throw new DoesNotFitException("trace", "A channel appears twice.");
        return new([.. filed.Select(s => new Series(s.Channel, s.Origin, s.Seconds, s.Values))]);
    }

    public async Task PhotoAsync(FiledPhoto filed, CancellationToken cancel)
    {
        var shotId = desk.Refer("shots", filed.ShotId, "shotId")!.Value;
        var addedAt = desk.Moment(filed.AddedAt)!.Value;
        var isNew = shotId < 0 || !await desk.Db.Photos.AnyAsync(p => p.ShotId == shotId && p.AddedAt == addedAt, cancel);
        desk.Count(isNew);
        if (!isNew)
            return;
        var photo = Photos.Photo.Drawn(filed.Jpeg);
        if (!desk.IsStored)
            return;
        desk.Db.Photos.Add(photo.For(shotId, addedAt));
        await desk.SaveAsync(cancel);
    }

    public async Task AdviceAsync(FiledAdvice filed, CancellationToken cancel)
    {
        var shotId = desk.Refer("shots", filed.ShotId, "shotId")!.Value;
        var takenAt = desk.Moment(filed.TakenAt)!.Value;
        var isNew = shotId < 0 || !await desk.Db.Advices.AnyAsync(a => a.ShotId == shotId && a.TakenAt == takenAt, cancel);
        desk.Count(isNew);
        var row = new Advice
        {
            ShotId = shotId,
            TakenAt = takenAt,
            Taken = filed.Taken,
            JudgedById = desk.Refer("shots", filed.JudgedById, "judgedById"),
            Worked = filed.Worked,
            Sentence = Texts.Lines(filed.Sentence, "sentence", "Sentence", 1000),
        };
        if (!isNew || !desk.IsStored)
            return;
        desk.Db.Advices.Add(row);
        await desk.SaveAsync(cancel);
    }

    /// <summary>Stores the shots that wait for company.</summary>
    public async Task FlushAsync(CancellationToken cancel)
    {
        if (_waiting.Count == 0)
            return;
        await Task.WhenAll(_waiting.Select(w => w.Measured));
        desk.Db.Shots.AddRange(_waiting.Select(w => w.Shot));
        await desk.Db.SaveChangesAsync(cancel);
        foreach (var (id, shot, _) in _waiting)
        {
            _found.Add(shot.Id);
            desk.Ids("shots")[id] = shot.Id;
        }

        _waiting.Clear();
        desk.Db.ChangeTracker.Clear();
    }
}
