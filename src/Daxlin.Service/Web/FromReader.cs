using Daxlin.Reading;
using Daxlin.Service.Work;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Daxlin.Service.Web;

/// <summary>Passes on what a reading process wrote, without holding it: the words of a long document are more than the service should.</summary>
internal static class FromReader
{
    /// <param name="read">Asks a reading process, and hands what it wrote to the function given.</param>
    /// <returns>Null if the answer is written; else why there is none.</returns>
    public static async Task<ProblemHttpResult?> Answer(Func<Func<Stream, Task>, Task> read, HttpResponse response, CancellationToken cancel)
    {
        try
        {
            await read(async result =>
            {
                response.ContentType = "application/json; charset=utf-8";
                await result.CopyToAsync(response.Body, cancel);
            });
            return null;
        }
        catch (UnreadableException error)
        {
            return Problem.Of(StatusCodes.Status422UnprocessableEntity, error.Code, error.Message);
        }
        catch (ReaderDiedException)
        {
            return Problem.Of(StatusCodes.Status422UnprocessableEntity, ReaderDiedException.Code, ReaderDiedException.Sentence);
        }
    }
}
