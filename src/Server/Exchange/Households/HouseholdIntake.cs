using System.Text.Json;
using RuddySpring.Core;
using RuddySpring.Server.Hosting;
using RuddySpring.Store;

namespace RuddySpring.Server.Exchange.Households;

/// <summary>How much of one list of a file is new here, and how much is here already.</summary>
public sealed record TakenIn(string List, int New, int Already);

/// <summary>
/// Takes the pieces of a household's file in their order: checks each, finds what is here already, and stores the rest where
/// that is wanted. What has the name of something on the bench is taken for it, and what is here stays.
/// </summary>
public sealed class HouseholdIntake
{
    private readonly IntakeDesk _desk;
    private readonly BenchIntake _bench;
    private readonly ShotIntake _shots;
    private readonly DiaryIntake _diary;
    private bool _isHousehold;

    /// <summary>Takes into a household.</summary>
    /// <param name="db">The household.</param>
    /// <param name="time">The clock.</param>
    /// <param name="isStored">Whether it is stored, and not only looked through.</param>
    /// <param name="withSettings">Whether the settings here become those of the file.</param>
    public HouseholdIntake(RuddyContext db, TimeProvider time, bool isStored, bool withSettings)
    {
        _desk = new(db, time, isStored);
        (_bench, _shots, _diary) = (new(_desk, withSettings), new(_desk), new(_desk));
    }

    /// <summary>What came of it so far, list by list.</summary>
    public IReadOnlyList<TakenIn> Counts => _desk.Counts;

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
        await _shots.FlushAsync(cancel);
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
        new(
            "file",
            $"The file is not a household of Ruddy Spring: it must begin with \"format\": \"{HouseholdFile.FormatName}\"."
        );

    private async Task SortAsync(FilePiece piece, CancellationToken cancel)
    {
        if (!_isHousehold)
        {
            if (piece.Name != "format" || JsonSerializer.Deserialize<string>(piece.Json.Span) != HouseholdFile.FormatName)
                throw NoHousehold();
            _isHousehold = true;
            return;
        }

        if (piece.Index is not null && piece.Name != _desk.List)
        {
            var place = HouseholdFile.Lists.ToList().IndexOf(piece.Name);
            if (place >= 0 && place < HouseholdFile.Lists.ToList().IndexOf(_desk.List))
                throw new DoesNotFitException("file", $"{piece.Name} stands after {_desk.List}; it must stand before it.");
            _desk.List = piece.Name;
            await _shots.FlushAsync(cancel);
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
                await _bench.HouseholdAsync(As<FiledHousehold>(), cancel);
                break;
            case "brewers":
                await _bench.BrewerAsync(As<FiledBrewer>(), cancel);
                break;
            case "machines":
                await _bench.MachineAsync(As<FiledMachine>(), cancel);
                break;
            case "grinders":
                await _bench.GrinderAsync(As<FiledGrinder>(), cancel);
                break;
            case "baskets":
                await _bench.BasketAsync(As<FiledBasket>(), cancel);
                break;
            case "bags":
                await _bench.BagAsync(As<FiledBag>(), cancel);
                break;
            case "plans":
                await _bench.PlanAsync(As<FiledPlan>(), cancel);
                break;
            case "shots":
                await _shots.ShotAsync(As<FiledShot>(), cancel);
                break;
            case "photos":
                await _shots.PhotoAsync(As<FiledPhoto>(), cancel);
                break;
            case "advice":
                await _shots.AdviceAsync(As<FiledAdvice>(), cancel);
                break;
            case "sessions":
                await _diary.SessionAsync(As<FiledSession>(), cancel);
                break;
            case "practice":
                await _diary.PracticeAsync(As<FiledPractice>(), cancel);
                break;
            case "ladders":
                await _diary.LadderAsync(As<FiledLadder>(), cancel);
                break;
            case "views":
                await _diary.ViewAsync(As<FiledView>(), cancel);
                break;
            case "care":
                await _diary.CareAsync(As<FiledCareDone>(), cancel);
                break;
            case "careChoices":
                await _diary.CareChoiceAsync(As<FiledCareChoice>(), cancel);
                break;
            default:
                throw new DoesNotFitException(
                    "file",
                    $"The file holds \"{RequestSentences.Short(piece.Name)}\", which is not understood."
                );
        }
    }
}
