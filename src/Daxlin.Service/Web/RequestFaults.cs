using System.Globalization;
using System.Text.Json;
using Daxlin.Service.Storage;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Http.Metadata;
using Microsoft.Extensions.Options;
using JsonOptions = Microsoft.AspNetCore.Http.Json.JsonOptions;

namespace Daxlin.Service.Web;

/// <summary>Answers what goes wrong with a request, in whatever layer, by problem details with a sentence and a code.</summary>
/// <remarks>
/// Sentences of libraries never leave the service: they name types and say nothing to a clerk. <c>{"batchId": 26}</c>
/// becomes "The request has a key “batchId” that is not known here; known are all, batch."
/// </remarks>
internal sealed class RequestFaults(IOptions<JsonOptions> json, StorageState storage, ILogger<RequestFaults> log) : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(HttpContext httpContext, Exception exception, CancellationToken cancellationToken)
    {
        if (httpContext.RequestAborted.IsCancellationRequested)
            return true;
        var (status, code, sentence) = Of(httpContext, exception);
        // What a request came upon does not go by itself; /health and the console say so from now on.
        if (code is "database-damaged" or "disk-faulty")
            storage.Report(code, sentence);
        if (status >= StatusCodes.Status500InternalServerError)
            log.LogError(exception, "{Method} {Path} failed", httpContext.Request.Method, httpContext.Request.Path);
        await Problem.Of(status, code, sentence).ExecuteAsync(httpContext);
        return true;
    }

    private (int Status, string Code, string Sentence) Of(HttpContext context, Exception exception) => exception switch
    {
        BadHttpRequestException { InnerException: JsonException fault } => (StatusCodes.Status400BadRequest, "json-faulty", SentenceOf(fault, TypeOf(context))),
        BadHttpRequestException { StatusCode: not StatusCodes.Status400BadRequest } refused => Problem.OfStatus(refused.StatusCode),
        BadHttpRequestException => (StatusCodes.Status400BadRequest, "request-faulty", "The request is not complete or not well formed."),
        JsonException fault => (StatusCodes.Status400BadRequest, "json-faulty", SentenceOf(fault, TypeOf(context))),
        InvalidDataException => (StatusCodes.Status400BadRequest, "form-faulty", "The form is not well formed: its parts or their boundary cannot be made out."),
        _ when StorageFaults.IsUnstorable(exception) => (StatusCodes.Status422UnprocessableEntity, "character-unstorable", "A text has a character that the database cannot keep (U+0000). Leave it out; nothing was changed."),
        _ when StorageFaults.Of(exception) is { } fault => fault,
        IOException when context.Request.HasFormContentType => (StatusCodes.Status400BadRequest, "cut-off", "The upload ended before it was whole; send it again."),
        _ => Problem.OfStatus(StatusCodes.Status500InternalServerError),
    };

    private static Type? TypeOf(HttpContext context) =>
        context.Features.Get<IExceptionHandlerFeature>()?.Endpoint?.Metadata.GetMetadata<IAcceptsMetadata>()?.RequestType;

    private string SentenceOf(JsonException fault, Type? type)
    {
        var key = fault.Path is { Length: > 2 } path ? path[2..].Trim('\'', '[', ']') : "";
        // The library gives a line only for text that is no JSON at all, or for a value of the wrong type.
        if (key.Length > 0 && type is not null)
        {
            var known = json.Value.SerializerOptions.GetTypeInfo(type).Properties.Select(property => property.Name).Order(StringComparer.Ordinal).ToList();
            return known.Contains(key) ? $"The value of “{key}” is not of the kind that is wanted, or stands there twice."
                : $"The request has a key “{Shortened(key)}” that is not known here; known are {string.Join(", ", known)}.";
        }
        return string.Create(CultureInfo.InvariantCulture, $"The request is not the JSON that is wanted here (line {(fault.LineNumber ?? 0) + 1}).");
    }

    private static string Shortened(string key) => key.Length <= 60 ? key : key[..59] + "…";
}
