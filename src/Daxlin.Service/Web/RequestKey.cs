using Microsoft.AspNetCore.Http.HttpResults;

namespace Daxlin.Service.Web;

/// <summary>The Idempotency-Key of a request that makes something: sent again because its answer was lost, it makes no second.</summary>
internal static class RequestKey
{
    private const int Longest = 200;

    public static ProblemHttpResult? Refuse(string? key) => key?.Length > Longest
        ? Problem.Of(StatusCodes.Status422UnprocessableEntity, "key-too-long", $"An Idempotency-Key has at most {Longest} characters.") : null;
}
