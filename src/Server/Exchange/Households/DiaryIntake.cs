using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Core.Care;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Reasoning;
using RuddySpring.Core.Water;
using RuddySpring.Server.Care;
using RuddySpring.Server.Hosting;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Exchange.Households;

/// <summary>Takes in what was done with it all: sessions, practice, ladders, saved views and care.</summary>
internal sealed class DiaryIntake(IntakeDesk desk)
{
    public async Task SessionAsync(FiledSession filed, CancellationToken cancel)
    {
        var machineId = desk.Refer("machines", filed.MachineId, "machineId")!.Value;
        var createdAt = desk.Moment(filed.CreatedAt)!.Value;
        var row = new Session
        {
            MachineId = machineId,
            CreatedAt = createdAt,
            OriginAt = desk.Moment(filed.OriginAt),
            ReadyAt = desk.Moment(filed.ReadyAt),
            EndedAt = desk.Moment(filed.EndedAt),
            AmbientC = HeatRanges.Ambient.Check(filed.AmbientC),
            AltitudeMetres = Atmosphere.Altitude.Check(filed.AltitudeMetres),
            Wants = filed.Wants.Checked(),
            Log = filed.Log.Checked(),
        };
        // one session at a time is open on a machine, and that is the one here
        var isNew =
            machineId < 0
            || !await desk.Db.Sessions.AnyAsync(
                s => s.MachineId == machineId && (s.CreatedAt == createdAt || (s.EndedAt == null && row.EndedAt == null)),
                cancel
            );
        await desk.KeepAsync(isNew, row, cancel);
    }

    public async Task PracticeAsync(FiledPractice filed, CancellationToken cancel)
    {
        var key = Texts.Required(filed.LessonKey, "lessonKey", "Key of the lesson");
        var playedAt = desk.Moment(filed.PlayedAt)!.Value;
        var isNew = !await desk.Db.Practice.AnyAsync(p => p.LessonKey == key && p.PlayedAt == playedAt, cancel);
        await desk.KeepAsync(
            isNew,
            new PracticeAttempt
            {
                LessonKey = key,
                PlayedAt = playedAt,
                Family = filed.Family,
                Points = filed.Score.Points,
                Score = filed.Score,
            },
            cancel
        );
    }

    public async Task LadderAsync(FiledLadder filed, CancellationToken cancel)
    {
        var createdAt = desk.Moment(filed.CreatedAt)!.Value;
        BlindLadder.Cups.Check(filed.Plan.Rungs.Count);
        var cups = Enumerable.Range(0, filed.Plan.Rungs.Count);
        if (!filed.Plan.Order.Order().SequenceEqual(cups) || !(filed.Places?.Order() ?? cups.Order()).SequenceEqual(cups))
            throw new DoesNotFitException("plan", "A ladder must have a place for each of its cups, and one cup in each.");
        if (filed.Liked is { } liked && (liked.Count != filed.Plan.Rungs.Count || liked.Any(l => l is < 1 or > 5)))
            throw new DoesNotFitException("liked", "A ladder must have a liking from 1 to 5, or none, for each of its cups.");
        foreach (var rung in filed.Plan.Rungs)
            BlindLadder.Range(filed.Plan.Of, "rungs").Check(rung);
        var isNew = !await desk.Db.Ladders.AnyAsync(l => l.CreatedAt == createdAt, cancel);
        await desk.KeepAsync(
            isNew,
            new Ladder
            {
                CreatedAt = createdAt,
                Plan = filed.Plan,
                Places = filed.Places,
                Liked = filed.Liked,
            },
            cancel
        );
    }

    public async Task ViewAsync(FiledView filed, CancellationToken cancel)
    {
        var name = Texts.Required(filed.Name, "name", "Name", Ledger.SavedViews.LongestName);
        var query = Texts.Required(filed.Query, "query", "What is shown", Ledger.SavedViews.LongestQuery);
        var isNew = !await desk.Db.Views.AnyAsync(v => v.Name == name, cancel);
        await desk.KeepAsync(isNew, new SavedView { Name = name, Query = query }, cancel);
    }

    public async Task CareAsync(FiledCareDone filed, CancellationToken cancel)
    {
        var machineId = desk.Refer("machines", filed.MachineId, "machineId")!.Value;
        var row = new CareDone
        {
            MachineId = machineId,
            Task = KnownTask(filed.Task),
            DoneOn = CareDays.Check(filed.DoneOn, "doneOn", DateOnly.FromDateTime(desk.Time.GetUtcNow().UtcDateTime)),
            Note = Texts.Optional(filed.Note, "note", "The note", CareDays.LongestNote),
        };
        var isNew =
            machineId < 0
            || !await desk.Db.CareDone.AnyAsync(
                d => d.MachineId == machineId && d.Task == row.Task && d.DoneOn == row.DoneOn && d.Note == row.Note,
                cancel
            );
        await desk.KeepAsync(isNew, row, cancel);
    }

    public async Task CareChoiceAsync(FiledCareChoice filed, CancellationToken cancel)
    {
        var machineId = desk.Refer("machines", filed.MachineId, "machineId")!.Value;
        var row = new CareChoice
        {
            MachineId = machineId,
            Task = KnownTask(filed.Task),
            Interval = filed.Interval?.Checked(),
            IsOff = filed.IsOff,
        };
        var isNew =
            machineId < 0 || !await desk.Db.CareChoices.AnyAsync(c => c.MachineId == machineId && c.Task == row.Task, cancel);
        await desk.KeepAsync(isNew, row, cancel);
    }

    private static string KnownTask(string task) =>
        CareList.IsKey(task)
            ? task
            : throw new DoesNotFitException("task", $"There is no care task \"{RequestSentences.Short(task)}\".");
}
