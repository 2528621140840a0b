using System.Text.Json.Nodes;
using Daxlin.Core.People;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;

namespace Daxlin.Service.People;

/// <summary>Tells in the interface's document which right each operation needs, and how it refuses.</summary>
internal static class RightsInOpenApi
{
    /// <summary>The key beside an operation, and its word where one has only to be signed in, or not even that.</summary>
    private const string Key = "x-right", Anyone = "anyone", Nobody = "nobody";

    public static Task Tell(OpenApiOperation operation, OpenApiOperationTransformerContext context, CancellationToken cancel)
    {
        var metadata = context.Description.ActionDescriptor.EndpointMetadata;
        var needed = metadata.OfType<IAllowAnonymous>().Any() ? Nobody : metadata.OfType<NeededRight>().LastOrDefault()?.Right is { } right ? Roles.Word(right) : Anyone;
        operation.Extensions ??= new Dictionary<string, IOpenApiExtension>();
        operation.Extensions[Key] = new JsonNodeExtension(JsonValue.Create(needed));
        return Task.CompletedTask;
    }
}
