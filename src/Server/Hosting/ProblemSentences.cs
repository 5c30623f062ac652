using System.Text.Json;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Http.Metadata;
using Microsoft.AspNetCore.Mvc;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using RuddySpring.Core;
using RuddySpring.Server.Network;
using RuddySpring.Store;

namespace RuddySpring.Server.Hosting;

/// <summary>Something that was asked for is not there.</summary>
public sealed class NotThereException(string what) : Exception(what);

/// <summary>What is asked does not go with what is happening now.</summary>
public sealed class NotNowException(string why) : Exception(why);

/// <summary>Turns what went wrong into problem details (RFC 9457) with one sentence that names field and range.</summary>
public sealed class ProblemSentences(ILogger<ProblemSentences> log, IOptions<Microsoft.AspNetCore.Http.Json.JsonOptions> json)
    : IExceptionHandler
{
    private const int GoneAway = 499;

    public async ValueTask<bool> TryHandleAsync(HttpContext httpContext, Exception exception, CancellationToken cancellationToken)
    {
        if (httpContext.RequestAborted.IsCancellationRequested)
        {
            // nobody waits for an answer any more
            httpContext.Response.StatusCode = GoneAway;
            return true;
        }

        var endpoint = httpContext.Features.Get<IExceptionHandlerFeature>()?.Endpoint;
        var problem = Of(exception, endpoint?.Metadata.GetMetadata<IAcceptsMetadata>()?.RequestType);
        if (problem.Status >= 500)
            log.LogError(exception, "{Method} {Path} failed", httpContext.Request.Method, httpContext.Request.Path);
        httpContext.Response.StatusCode = problem.Status ?? 500;
        if (exception is TooManyTriesException { Wait: var wait })
            httpContext.Response.Headers.RetryAfter = $"{Math.Ceiling(wait.TotalSeconds):0}";
        await httpContext.Response.WriteAsJsonAsync(
            problem,
            (JsonSerializerOptions?)null,
            "application/problem+json",
            cancellationToken
        );
        return true;
    }

    private ProblemDetails Of(Exception exception, Type? body)
    {
        switch (exception)
        {
            case FieldRangeException e:
                return Problem(400, e.Sentence, e.Range.Field, e.Range);
            case DoesNotFitException e:
                return Problem(400, e.Sentence, e.Field);
            case NotThereException e:
                return Problem(404, e.Message);
            case NotSignedInException e:
                return Problem(401, e.Message);
            case NotAllowedException e:
                return Problem(403, e.Message);
            case TooManyTriesException e:
                return Problem(429, e.Message);
            case NotNowException e:
                return Problem(409, e.Message);
            case ChangedMeanwhileException e:
                return Problem(409, e.Message);
            case DbUpdateConcurrencyException:
                return Problem(409, ChangedMeanwhileException.Sentence("This"));
            case UnreadableBodyException e:
                return Problem(e.Status, e.Message);
            case BadHttpRequestException e:
                var (sentence, field) = RequestSentences.Of(e, body, json.Value.SerializerOptions);
                return Problem(e.StatusCode, sentence, field);
            case DbUpdateException { InnerException: SqliteException e }:
                return OfDatabase(e);
            case SqliteException e:
                return OfDatabase(e);
            default:
                return Problem(
                    500,
                    "Something went wrong inside the application; the server's log says what. Nothing that was stored is lost."
                );
        }
    }

    private static ProblemDetails OfDatabase(SqliteException error) =>
        Problem(
            DatabaseFault.Of(error) switch
            {
                DatabaseFault.Refers => 409,
                DatabaseFault.DiskFull => StatusCodes.Status507InsufficientStorage,
                _ => 503,
            },
            DatabaseFault.Sentence(error)
        );

    private static ProblemDetails Problem(int status, string sentence, string? field = null, FieldRange? range = null)
    {
        var plain = Quantity.Plain(sentence);
        var problem = new ProblemDetails
        {
            Status = status,
            Title = plain,
            Detail = plain,
        };
        // the page says quantities in the reader's units
        if (plain != sentence)
            problem.Extensions["said"] = sentence;
        if (field is not null)
            problem.Extensions["field"] = field;
        if (range is null)
            return problem;
        problem.Extensions["min"] = range.Min;
        problem.Extensions["max"] = range.Max;
        problem.Extensions["unit"] = range.Unit;
        return problem;
    }
}
