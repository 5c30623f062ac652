using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Core.Care;
using RuddySpring.Core.Coaching;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Reasoning;
using RuddySpring.Core.Traces;
using RuddySpring.Core.Water;
using RuddySpring.Server.Care;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Household;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Exchange.Households;

/// <summary>How much of one list of a file is new here, and how much is here already.</summary>
public sealed record TakenIn(string List, int New, int Already);

/// <summary>
/// Takes the pieces of a household's file in their order: checks each, finds what is here already, and stores the rest where
/// that is wanted. What has the name of something on the bench is taken for it, and what is here stays.
/// </summary>
public sealed class HouseholdIntake(RuddyContext db, TimeProvider time, bool isStored, bool withSettings)
{
    private const int AtOnce = 100;
    private const int MostSamples = 100_000;
    private static readonly DateTime Earliest = new(1950, 1, 1, 0, 0, 0, DateTimeKind.Utc);
    private static readonly FieldRange Mark = new("taste", "Taste", 0, 4, "");
    private static readonly FieldRange Liking = new("liking", "Liking", 1, 5, "");
    private static readonly FieldRange Strength = new("strength", "Strength", 0, 0.3, "");
    private static readonly FieldRange Water = new("waterC", "Water at the puck", 0, 110, "degC");
    private static readonly FieldRange Measure = new("measures", "A measure", -100_000, 100_000, "");
    private static readonly FieldRange Second = new("seconds", "Time of a sample", 0, 3600, "s");
    private readonly Dictionary<string, Dictionary<int, int>> _ids = [];
    private readonly Dictionary<string, (int New, int Already)> _counts = [];
    private readonly List<(int Id, Shot Shot)> _waiting = [];
    private string _list = "";
    private int _made; // numbers of what is only looked at
    private bool _isHousehold;

    /// <summary>What came of it so far, list by list.</summary>
    public IReadOnlyList<TakenIn> Counts =>
        [.. HouseholdFile.Lists.Where(_counts.ContainsKey).Select(l => new TakenIn(l, _counts[l].New, _counts[l].Already))];

    /// <summary>Takes a piece.</summary>
    /// <exception cref="DoesNotFitException">It is not sound; the sentence names line, list and entry.</exception>
    public async Task TakeAsync(FilePiece piece, CancellationToken cancel)
    {
        try
        {
            await SortAsync(piece, cancel);
        }
        catch (DoesNotFitException error) when (error.Field == "file")
        {
            throw;
        }
        catch (FieldRangeException error)
        {
            throw At(piece, error.Range.Field, Quantity.Plain(error.Sentence));
        }
        catch (DoesNotFitException error)
        {
            throw At(piece, error.Field, Quantity.Plain(error.Sentence));
        }
        catch (JsonException error)
        {
            throw At(piece, "file", Sentence(error));
        }
        catch (Exception error) when (error is NullReferenceException or ArgumentException or InvalidOperationException)
        {
            throw At(piece, "file", "Something in it is missing or of another kind.");
        }
    }

    /// <summary>Stores what waits for company.</summary>
    public async Task EndAsync(CancellationToken cancel)
    {
        if (!_isHousehold)
            throw NoHousehold();
        await FlushAsync(cancel);
    }

    private static DoesNotFitException At(FilePiece piece, string field, string sentence) =>
        new(
            field,
            $"Line {piece.Line}, {piece.Name}{(piece.Index is { } i ? $" entry {i + 1}" : "")}: {sentence} Nothing was changed."
        );

    private static string Sentence(JsonException error) =>
        error switch
        {
            FieldValueException e => e.Sentence,
            { Path: { Length: > 2 } path } => $"{path[2..]} is missing or has a value that is not understood.",
            _ => "A field is missing or has a value that is not understood.",
        };

    private static DoesNotFitException NoHousehold() =>
        new("file", $"The file is no household of Ruddy Spring: it must begin with \"format\": \"{HouseholdFile.FormatName}\".");

    private async Task SortAsync(FilePiece piece, CancellationToken cancel)
    {
        if (!_isHousehold)
        {
            if (piece.Name != "format" || JsonSerializer.Deserialize<string>(piece.Json.Span) != HouseholdFile.FormatName)
                throw NoHousehold();
            _isHousehold = true;
            return;
        }

        if (piece.Index is not null && piece.Name != _list)
        {
            var place = HouseholdFile.Lists.ToList().IndexOf(piece.Name);
            if (place >= 0 && place < HouseholdFile.Lists.ToList().IndexOf(_list))
                throw new DoesNotFitException("file", $"{piece.Name} stands after {_list}; it must stand before it.");
            _list = piece.Name;
            await FlushAsync(cancel);
        }

        T As<T>() =>
            JsonSerializer.Deserialize<T>(piece.Json.Span, HouseholdJson.Options)
            ?? throw new DoesNotFitException("entry", "It must not be empty.");
        switch (piece.Name)
        {
            case "version":
                if (As<int>() is var version and not HouseholdFile.CurrentVersion)
                    throw new DoesNotFitException(
                        "version",
                        $"The file has version {version}; version {HouseholdFile.CurrentVersion} is read. "
                            + "A newer program may be needed."
                    );
                break;
            case "writtenAt":
                break;
            case "household":
                await HouseholdAsync(As<FiledHousehold>(), cancel);
                break;
            case "brewers":
                await BrewerAsync(As<FiledBrewer>(), cancel);
                break;
            case "machines":
                await MachineAsync(As<FiledMachine>(), cancel);
                break;
            case "grinders":
                await GrinderAsync(As<FiledGrinder>(), cancel);
                break;
            case "baskets":
                await BasketAsync(As<FiledBasket>(), cancel);
                break;
            case "bags":
                await BagAsync(As<FiledBag>(), cancel);
                break;
            case "plans":
                await PlanAsync(As<FiledPlan>(), cancel);
                break;
            case "shots":
                await ShotAsync(As<FiledShot>(), cancel);
                break;
            case "photos":
                await PhotoAsync(As<FiledPhoto>(), cancel);
                break;
            case "advice":
                await AdviceAsync(As<FiledAdvice>(), cancel);
                break;
            case "sessions":
                await SessionAsync(As<FiledSession>(), cancel);
                break;
            case "practice":
                await PracticeAsync(As<FiledPractice>(), cancel);
                break;
            case "ladders":
                await LadderAsync(As<FiledLadder>(), cancel);
                break;
            case "views":
                await ViewAsync(As<FiledView>(), cancel);
                break;
            case "care":
                await CareAsync(As<FiledCareDone>(), cancel);
                break;
            case "careChoices":
                await CareChoiceAsync(As<FiledCareChoice>(), cancel);
                break;
            default:
                throw new DoesNotFitException(
                    "file",
                    $"The file holds \"{RequestSentences.Short(piece.Name)}\", which is not understood."
                );
        }
    }

    private async Task HouseholdAsync(FiledHousehold filed, CancellationToken cancel)
    {
        Texts.Required(filed.Name, "name", "Name");
        Atmosphere.Altitude.Check(filed.AltitudeMetres);
        HeatRanges.Ambient.Check(filed.AmbientC);
        DisplayUnits.Check(filed.PressureUnit, filed.TemperatureUnit, filed.ForceUnit);
        var school = HouseholdEndpoints.KnownSchool(filed.School);
        var words = TasteWords.Checked(filed.TasteWords);
        var rest = filed.Rest.Checked();
        Descaling.Hardness.Check(filed.WaterHardness);
        if (!isStored || !withSettings)
            return;
        var row = await db.Households.SingleAsync(cancel);
        row.Name = filed.Name;
        row.AltitudeMetres = filed.AltitudeMetres;
        row.AmbientC = filed.AmbientC;
        row.PressureUnit = filed.PressureUnit;
        row.TemperatureUnit = filed.TemperatureUnit;
        row.ForceUnit = filed.ForceUnit;
        row.School = school!;
        row.TasteWords = words;
        row.Rest = rest;
        row.WaterHardness = filed.WaterHardness;
        await db.SaveChangesAsync(cancel);
    }

    private async Task BrewerAsync(FiledBrewer filed, CancellationToken cancel)
    {
        var name = Texts.Required(filed.Name, "name", "Name");
        DisplayUnits.Check(filed.PressureUnit, filed.TemperatureUnit, filed.ForceUnit);
        var row = new Brewer
        {
            Name = name,
            School = HouseholdEndpoints.KnownSchool(filed.School),
            PressureUnit = filed.PressureUnit,
            TemperatureUnit = filed.TemperatureUnit,
            ForceUnit = filed.ForceUnit,
        };
        await ThingAsync(filed.Id, row, db.Brewers.Where(b => b.Name == name).Select(b => (int?)b.Id), r => r.Id, cancel);
    }

    private async Task MachineAsync(FiledMachine filed, CancellationToken cancel)
    {
        var name = Texts.Required(filed.Name, "name", "Name");
        var row = new BenchMachine
        {
            Name = name,
            Spec = filed.Spec.Checked(),
            DeletedAt = Moment(filed.PutAwayAt),
        };
        await ThingAsync(filed.Id, row, Same(db.Machines, name, row.DeletedAt), r => r.Id, cancel);
    }

    private async Task GrinderAsync(FiledGrinder filed, CancellationToken cancel)
    {
        var row = new Grinder { DeletedAt = Moment(filed.PutAwayAt) };
        Bench.BenchEndpoints.Apply(
            row,
            new(
                filed.Name,
                filed.ScaleUnit,
                filed.Step,
                filed.FinerIsLower,
                filed.ZeroPoint,
                filed.RetentionGrams,
                filed.PurgeGrams
            )
        );
        await ThingAsync(filed.Id, row, Same(db.Grinders, row.Name, row.DeletedAt), r => r.Id, cancel);
    }

    private async Task BasketAsync(FiledBasket filed, CancellationToken cancel)
    {
        var name = Texts.Required(filed.Name, "name", "Name");
        var row = new BenchBasket
        {
            Name = name,
            Spec = filed.Spec.Checked(),
            DeletedAt = Moment(filed.PutAwayAt),
        };
        await ThingAsync(filed.Id, row, Same(db.Baskets, name, row.DeletedAt), r => r.Id, cancel);
    }

    private async Task BagAsync(FiledBag filed, CancellationToken cancel)
    {
        var row = new Bag
        {
            Name = Texts.Required(filed.Name, "name", "Name"),
            Roaster = Texts.Optional(filed.Roaster, "roaster", "Roaster"),
            RoastedOn = Day(filed.RoastedOn, "roastedOn")!.Value,
            RoastLevel = Texts.Optional(filed.RoastLevel, "roastLevel", "Roast"),
            Finished = filed.Finished,
            Process = Texts.Optional(filed.Process, "process", "Process"),
            OpenedOn = Day(filed.OpenedOn, "openedOn"),
            FrozenOn = Day(filed.FrozenOn, "frozenOn"),
            ThawedOn = Day(filed.ThawedOn, "thawedOn"),
            GramsLeft = filed.GramsLeft is { } left ? Bench.BenchEndpoints.Left.Check(left) : null,
            BrewerId = Refer("brewers", filed.BrewerId, "brewerId"),
            DeletedAt = Moment(filed.PutAwayAt),
        };
        var same = db
            .Bags.Where(b =>
                b.Name == row.Name
                && b.Roaster == row.Roaster
                && b.RoastedOn == row.RoastedOn
                && b.DeletedAt == null == (row.DeletedAt == null)
            )
            .Select(b => (int?)b.Id);
        await ThingAsync(filed.Id, row, same, r => r.Id, cancel);
    }

    private async Task PlanAsync(FiledPlan filed, CancellationToken cancel)
    {
        var row = new OwnPlan { Plan = filed.Plan.Checked(), DeletedAt = Moment(filed.PutAwayAt) };
        int? here = null;
        foreach (var plan in await db.Plans.AsNoTracking().ToListAsync(cancel))
        {
            if (plan.Plan.Name == row.Plan.Name && plan.DeletedAt is null == row.DeletedAt is null)
                here ??= plan.Id;
        }

        await ThingAsync(filed.Id, row, here, r => r.Id, cancel);
    }

    private async Task ShotAsync(FiledShot filed, CancellationToken cancel)
    {
        if (Ids("shots").ContainsKey(filed.Id) || _waiting.Exists(w => w.Id == filed.Id))
            throw Twice(filed.Id);
        var pulledAt = Moment(filed.PulledAt)!.Value;
        var machineId = Refer("machines", filed.MachineId, "machineId")!.Value;
        var shot = Shot(filed, pulledAt, machineId);
        var trace = Trace(filed.Trace);
        CheckNumbers(filed.Marked, Second);
        CheckNumbers(filed.Measures, Measure);
        // numbers of what is new here stand for nothing yet
        var here =
            machineId < 0
                ? null
                : await db
                    .Shots.Where(s =>
                        (s.PulledAt == pulledAt && s.MachineId == machineId) || (s.PullId != null && s.PullId == filed.PullId)
                    )
                    .Select(s => (int?)s.Id)
                    .FirstOrDefaultAsync(cancel);
        if (here is { } known)
        {
            Ids("shots")[filed.Id] = known;
            Count(isNew: false);
            return;
        }

        Count(isNew: true);
        var plan = filed.Plan.Checked();
        if (plan.Key.StartsWith("own-", StringComparison.Ordinal) && int.TryParse(plan.Key[4..], out var own))
            plan = Ids("plans").TryGetValue(own, out var now) ? plan with { Key = $"own-{now}" } : plan;
        var puck = filed.Learned?.Puck?.Checked();
        if (!isStored)
        {
            Ids("shots")[filed.Id] = --_made;
            return;
        }

        var machine = (await db.Machines.FindAsync([machineId], cancel))!.Spec;
        var basket = shot.BasketId is { } basketId ? (await db.Baskets.FindAsync([basketId], cancel))!.Spec : null;
        shot.Measures = filed.Measures;
        ShotRecording.SetTrace(shot, plan, machine, basket, trace, filed.Marked, filed.Clock);
        shot.GroupC = filed.GroupC;
        shot.Trace.Learned = filed.Learned is { } learned
            ? learned with
            {
                Puck = puck,
                Holder = Taught.Holder(machineId, learned.Holder.EndsWith("bottomless", StringComparison.Ordinal)),
            }
            : null;
        _waiting.Add((filed.Id, shot));
        if (_waiting.Count >= AtOnce)
            await FlushAsync(cancel);
    }

    private Shot Shot(FiledShot filed, DateTime pulledAt, int machineId)
    {
        static int? Taste(int? mark) => mark is { } value ? (int)Mark.Check(value) : null;
        return new()
        {
            PullId = filed.PullId is null ? null : Texts.Required(filed.PullId, "pullId", "Number of the pull"),
            PulledAt = pulledAt,
            Source = filed.Source,
            MachineId = machineId,
            BrewerId = Refer("brewers", filed.BrewerId, "brewerId"),
            BagId = Refer("bags", filed.BagId, "bagId"),
            GrinderId = Refer("grinders", filed.GrinderId, "grinderId"),
            GrindSetting = filed.GrindSetting is { } grind ? Prepare.PrepareEndpoints.GrindSetting.Check(grind) : null,
            BasketId = Refer("baskets", filed.BasketId, "basketId"),
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
            Liking = filed.Liking is { } liking ? (int)Liking.Check(liking) : null,
            Tapped = filed.Tapped,
            Before = filed.Before,
            Strength = filed.Strength is { } strength ? Strength.Check(strength) : null,
            Cause = filed.Cause is { } cause && CauseList.Find(cause) is not null ? cause : null,
            Notices = Texts.Lines(filed.Notices, "notices", "Notices", 4000),
            DeletedAt = Moment(filed.BinnedAt),
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
            throw new DoesNotFitException("trace", "A channel is there twice.");
        return new([.. filed.Select(s => new Series(s.Channel, s.Origin, s.Seconds, s.Values))]);
    }

    private async Task PhotoAsync(FiledPhoto filed, CancellationToken cancel)
    {
        var shotId = Refer("shots", filed.ShotId, "shotId")!.Value;
        var addedAt = Moment(filed.AddedAt)!.Value;
        var isNew = shotId < 0 || !await db.Photos.AnyAsync(p => p.ShotId == shotId && p.AddedAt == addedAt, cancel);
        Count(isNew);
        if (!isNew)
            return;
        var photo = Photos.Photo.Drawn(filed.Jpeg);
        if (!isStored)
            return;
        db.Photos.Add(photo.For(shotId, addedAt));
        await SaveAsync(cancel);
    }

    private async Task AdviceAsync(FiledAdvice filed, CancellationToken cancel)
    {
        var shotId = Refer("shots", filed.ShotId, "shotId")!.Value;
        var takenAt = Moment(filed.TakenAt)!.Value;
        var isNew = shotId < 0 || !await db.Advices.AnyAsync(a => a.ShotId == shotId && a.TakenAt == takenAt, cancel);
        Count(isNew);
        var row = new Advice
        {
            ShotId = shotId,
            TakenAt = takenAt,
            Taken = filed.Taken,
            JudgedById = Refer("shots", filed.JudgedById, "judgedById"),
            Worked = filed.Worked,
            Sentence = Texts.Lines(filed.Sentence, "sentence", "Sentence", 1000),
        };
        if (!isNew || !isStored)
            return;
        db.Advices.Add(row);
        await SaveAsync(cancel);
    }

    private async Task SessionAsync(FiledSession filed, CancellationToken cancel)
    {
        var machineId = Refer("machines", filed.MachineId, "machineId")!.Value;
        var createdAt = Moment(filed.CreatedAt)!.Value;
        var row = new Session
        {
            MachineId = machineId,
            CreatedAt = createdAt,
            OriginAt = Moment(filed.OriginAt),
            ReadyAt = Moment(filed.ReadyAt),
            EndedAt = Moment(filed.EndedAt),
            AmbientC = HeatRanges.Ambient.Check(filed.AmbientC),
            AltitudeMetres = Atmosphere.Altitude.Check(filed.AltitudeMetres),
            Wants = filed.Wants.Checked(),
            Log = filed.Log.Checked(),
        };
        // one session at a time is open on a machine, and that is the one here
        var isNew =
            machineId < 0
            || !await db.Sessions.AnyAsync(
                s => s.MachineId == machineId && (s.CreatedAt == createdAt || (s.EndedAt == null && row.EndedAt == null)),
                cancel
            );
        Count(isNew);
        if (!isNew || !isStored)
            return;
        db.Sessions.Add(row);
        await SaveAsync(cancel);
    }

    private async Task PracticeAsync(FiledPractice filed, CancellationToken cancel)
    {
        var key = Texts.Required(filed.LessonKey, "lessonKey", "Key of the lesson");
        var playedAt = Moment(filed.PlayedAt)!.Value;
        var isNew = !await db.Practice.AnyAsync(p => p.LessonKey == key && p.PlayedAt == playedAt, cancel);
        Count(isNew);
        if (!isNew || !isStored)
            return;
        db.Practice.Add(
            new()
            {
                LessonKey = key,
                PlayedAt = playedAt,
                Family = filed.Family,
                Points = filed.Score.Points,
                Score = filed.Score,
            }
        );
        await SaveAsync(cancel);
    }

    private async Task LadderAsync(FiledLadder filed, CancellationToken cancel)
    {
        var createdAt = Moment(filed.CreatedAt)!.Value;
        BlindLadder.Cups.Check(filed.Plan.Rungs.Count);
        var cups = Enumerable.Range(0, filed.Plan.Rungs.Count);
        if (!filed.Plan.Order.Order().SequenceEqual(cups) || !(filed.Places?.Order() ?? cups.Order()).SequenceEqual(cups))
            throw new DoesNotFitException("plan", "A ladder must have a place for each of its cups, and one cup in each.");
        if (filed.Liked is { } liked && (liked.Count != filed.Plan.Rungs.Count || liked.Any(l => l is < 1 or > 5)))
            throw new DoesNotFitException("liked", "A ladder must have a liking from 1 to 5, or none, for each of its cups.");
        foreach (var rung in filed.Plan.Rungs)
            BlindLadder.Range(filed.Plan.Of, "rungs").Check(rung);
        var isNew = !await db.Ladders.AnyAsync(l => l.CreatedAt == createdAt, cancel);
        Count(isNew);
        if (!isNew || !isStored)
            return;
        db.Ladders.Add(
            new()
            {
                CreatedAt = createdAt,
                Plan = filed.Plan,
                Places = filed.Places,
                Liked = filed.Liked,
            }
        );
        await SaveAsync(cancel);
    }

    private async Task ViewAsync(FiledView filed, CancellationToken cancel)
    {
        var name = Texts.Required(filed.Name, "name", "Name", Ledger.SavedViews.LongestName);
        var query = Texts.Required(filed.Query, "query", "What is shown", Ledger.SavedViews.LongestQuery);
        var isNew = !await db.Views.AnyAsync(v => v.Name == name, cancel);
        Count(isNew);
        if (!isNew || !isStored)
            return;
        db.Views.Add(new() { Name = name, Query = query });
        await SaveAsync(cancel);
    }

    private async Task CareAsync(FiledCareDone filed, CancellationToken cancel)
    {
        var machineId = Refer("machines", filed.MachineId, "machineId")!.Value;
        var row = new CareDone
        {
            MachineId = machineId,
            Task = KnownTask(filed.Task),
            DoneOn = CareDays.Check(filed.DoneOn, "doneOn", DateOnly.FromDateTime(time.GetUtcNow().UtcDateTime)),
            Note = Texts.Optional(filed.Note, "note", "The note", CareDays.LongestNote),
        };
        var isNew =
            machineId < 0
            || !await db.CareDone.AnyAsync(
                d => d.MachineId == machineId && d.Task == row.Task && d.DoneOn == row.DoneOn && d.Note == row.Note,
                cancel
            );
        Count(isNew);
        if (!isNew || !isStored)
            return;
        db.CareDone.Add(row);
        await SaveAsync(cancel);
    }

    private async Task CareChoiceAsync(FiledCareChoice filed, CancellationToken cancel)
    {
        var machineId = Refer("machines", filed.MachineId, "machineId")!.Value;
        var row = new CareChoice
        {
            MachineId = machineId,
            Task = KnownTask(filed.Task),
            Interval = filed.Interval?.Checked(),
            IsOff = filed.IsOff,
        };
        var isNew = machineId < 0 || !await db.CareChoices.AnyAsync(c => c.MachineId == machineId && c.Task == row.Task, cancel);
        Count(isNew);
        if (!isNew || !isStored)
            return;
        db.CareChoices.Add(row);
        await SaveAsync(cancel);
    }

    private static string KnownTask(string task) =>
        CareList.IsKey(task)
            ? task
            : throw new DoesNotFitException("task", $"There is no task of care \"{RequestSentences.Short(task)}\".");

    private async Task SaveAsync(CancellationToken cancel)
    {
        await db.SaveChangesAsync(cancel);
        db.ChangeTracker.Clear();
    }

    private async Task FlushAsync(CancellationToken cancel)
    {
        if (_waiting.Count == 0)
            return;
        db.Shots.AddRange(_waiting.Select(w => w.Shot));
        await db.SaveChangesAsync(cancel);
        foreach (var (id, shot) in _waiting)
            Ids("shots")[id] = shot.Id;
        _waiting.Clear();
        db.ChangeTracker.Clear();
    }

    private static IQueryable<int?> Same<T>(IQueryable<T> rows, string name, DateTime? putAwayAt)
        where T : class, IOnTheBench =>
        rows.Where(r => r.Name == name && r.DeletedAt == null == (putAwayAt == null)).Select(r => (int?)r.Id);

    private async Task ThingAsync<T>(int id, T row, IQueryable<int?> same, Func<T, int> number, CancellationToken cancel)
        where T : class => await ThingAsync(id, row, await same.FirstOrDefaultAsync(cancel), number, cancel);

    private async Task ThingAsync<T>(int id, T row, int? here, Func<T, int> number, CancellationToken cancel)
        where T : class
    {
        var ids = Ids(_list);
        if (ids.ContainsKey(id))
            throw Twice(id);
        // of two things with one name in the file, the second is another thing
        if (here is { } known && !ids.ContainsValue(known))
        {
            ids[id] = known;
            Count(isNew: false);
            return;
        }

        Count(isNew: true);
        if (!isStored)
        {
            ids[id] = --_made;
            return;
        }

        db.Add(row);
        await db.SaveChangesAsync(cancel);
        ids[id] = number(row);
        db.ChangeTracker.Clear();
    }

    private static DoesNotFitException Twice(int id) => new("id", $"The number {id} is there twice; each must be there once.");

    private Dictionary<int, int> Ids(string list) => _ids.TryGetValue(list, out var ids) ? ids : _ids[list] = [];

    private void Count(bool isNew)
    {
        var (fresh, already) = _counts.GetValueOrDefault(_list);
        _counts[_list] = isNew ? (fresh + 1, already) : (fresh, already + 1);
    }

    private int? Refer(string list, int? id, string field)
    {
        if (id is not { } number)
            return null;
        return Ids(list).TryGetValue(number, out var here)
            ? here
            : throw new DoesNotFitException(field, $"{field} is {number}, and the file has no such entry in {list}.");
    }

    private DateTime? Moment(DateTime? moment)
    {
        if (moment is not { } at)
            return null;
        var utc = at.Kind == DateTimeKind.Unspecified ? DateTime.SpecifyKind(at, DateTimeKind.Utc) : at.ToUniversalTime();
        var latest = time.GetUtcNow().UtcDateTime.AddDays(400); // a session can be planned ahead
        return utc >= Earliest && utc <= latest
            ? utc
            : throw new DoesNotFitException(
                "date",
                $"A date is {utc:yyyy-MM-dd}; it must lie between {Earliest:yyyy-MM-dd} and {latest:yyyy-MM-dd}."
            );
    }

    private DateOnly? Day(DateOnly? day, string field)
    {
        if (day is not { } on)
            return null;
        Moment(
            on.Year is < 1900 or > 2200 ? new DateTime(1800, 1, 1, 0, 0, 0, DateTimeKind.Utc) : on.ToDateTime(TimeOnly.MinValue)
        );
        return on;
    }
}
