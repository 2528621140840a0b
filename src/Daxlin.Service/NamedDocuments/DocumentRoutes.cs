using Daxlin.Service.Storage;
using Daxlin.Service.Web;

namespace Daxlin.Service.NamedDocuments;

/// <summary>What the addresses of all named documents have alike.</summary>
internal static class DocumentRoutes
{
    /// <param name="documents">The group of addresses, as <c>/sources</c>.</param>
    /// <param name="says">What the address is for, as the interface's description says it.</param>
    public static void MapVersions<TShelf, TVersion>(this RouteGroupBuilder documents, string says)
        where TShelf : DocumentShelf<TVersion>
        where TVersion : NamedDocument, new() =>
        documents.MapGet("/{name}/versions", Of<TShelf, TVersion>.Versions).WithSummary(says);

    /// <param name="retires">What retiring one is, as the interface's description says it.</param>
    /// <param name="bringsBack">What bringing it back is.</param>
    public static void MapRetirement<TShelf, TVersion>(this RouteGroupBuilder documents, string retires, string bringsBack)
        where TShelf : DocumentShelf<TVersion>
        where TVersion : NamedDocument, new()
    {
        documents.MapPost("/{name}/retirement", Of<TShelf, TVersion>.Retire).WithSummary(retires);
        documents.MapPost("/{name}/comeback", Of<TShelf, TVersion>.BringBack).WithSummary(bringsBack);
    }

    /// <summary>Of documents by which something is done without being asked for.</summary>
    public static (RouteHandlerBuilder Pause, RouteHandlerBuilder Resume) MapPausing<TShelf, TVersion, TState>(this RouteGroupBuilder documents, string pauses, string resumes)
        where TShelf : PausableShelf<TVersion, TState>
        where TVersion : NamedDocument, new()
        where TState : PausableState, new() =>
        (documents.MapPost("/{name}/pause", OfPausable<TShelf, TVersion, TState>.Pause).WithSummary(pauses),
            documents.MapPost("/{name}/resumption", OfPausable<TShelf, TVersion, TState>.Resume).WithSummary(resumes));

    // The framework's analyzer of handlers stumbles over those whose parameters have a type that is not settled yet; as delegates it lets them be.
    private static class Of<TShelf, TVersion>
        where TShelf : DocumentShelf<TVersion>
        where TVersion : NamedDocument, new()
    {
        public static Delegate Versions => (string name, TShelf shelf, CancellationToken cancel) => shelf.Versions(name, cancel);

        public static Delegate Retire => Turn(isRetired: true);

        public static Delegate BringBack => Turn(isRetired: false);

        private static Delegate Turn(bool isRetired) => (string name, DocumentNote said, HttpRequest request, Actor actor, TShelf shelf, WriteTurn turn, CancellationToken cancel) =>
            shelf.SetRetired(name, isRetired, said, request, actor, turn, cancel);
    }

    private static class OfPausable<TShelf, TVersion, TState>
        where TShelf : PausableShelf<TVersion, TState>
        where TVersion : NamedDocument, new()
        where TState : PausableState, new()
    {
        public static Delegate Pause => Turn(isPaused: true);

        public static Delegate Resume => Turn(isPaused: false);

        private static Delegate Turn(bool isPaused) => (string name, DocumentNote said, Actor actor, TShelf shelf, WriteTurn turn, CancellationToken cancel) =>
            shelf.SetPaused(name, isPaused, said, actor, turn, cancel);
    }
}
