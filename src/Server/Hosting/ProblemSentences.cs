using System.Text.Json;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;

namespace RuddySpring.Server.Hosting;

/// <summary>Something that was asked for is not there.</summary>
public sealed class NotThereException(string what) : Exception(what);

/// <summary>What is asked does not go with what is happening now.</summary>
public sealed class NotNowException(string why) : Exception(why);

/// <summary>Turns what went wrong into problem details (RFC 9457) with one sentence that names field and range.</summary>
public sealed class ProblemSentences(ILogger<ProblemSentences> log) : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(HttpContext httpContext, Exception exception, CancellationToken cancellationToken)
    {
        var problem = exception switch
        {
            FieldRangeException e => Problem(400, e.Sentence, e.Range.Field, e.Range),
            DoesNotFitException e => Problem(400, e.Sentence, e.Field),
            NotThereException e => Problem(404, e.Message),
            NotNowException e => Problem(409, e.Message),
            BadHttpRequestException { InnerException: JsonException inner } => Problem(400, JsonSentence(inner), inner.Path?.TrimStart('$', '.')),
            BadHttpRequestException e => Problem(e.StatusCode, e.StatusCode == 413
                ? $"The file is larger than {RuddyServer.LargestUpload / 1024 / 1024} MB, the most that is read."
                : "The request is not complete or not understood: " + e.Message),
            DbUpdateException => Problem(409, "It could not be stored: it refers to something that is not there, or the database is busy. Nothing was changed."),
            Microsoft.Data.Sqlite.SqliteException => Problem(503, "The database is busy or its disk is full. Nothing was changed; try again."),
            _ => Problem(500, "Something went wrong inside the application. Nothing that was stored is lost."),
        };
        if (problem.Status == 500) log.LogError(exception, "Unexpected error for {Path}", httpContext.Request.Path);
        httpContext.Response.StatusCode = problem.Status ?? 500;
        await httpContext.Response.WriteAsJsonAsync(problem, (JsonSerializerOptions?)null, "application/problem+json", cancellationToken);
        return true;
    }

    private static string JsonSentence(JsonException error)
    {
        var field = error.Path?.TrimStart('$', '.');
        return string.IsNullOrEmpty(field) ? "The request is not valid JSON." : $"The field {field} has a value that is not understood.";
    }

    private static ProblemDetails Problem(int status, string sentence, string? field = null, FieldRange? range = null)
    {
        var problem = new ProblemDetails { Status = status, Title = sentence, Detail = sentence };
        if (field is not null) problem.Extensions["field"] = field;
        if (range is null) return problem;
        problem.Extensions["min"] = range.Min;
        problem.Extensions["max"] = range.Max;
        problem.Extensions["unit"] = range.Unit;
        return problem;
    }
}
