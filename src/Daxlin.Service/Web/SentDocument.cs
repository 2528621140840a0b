namespace Daxlin.Service.Web;

/// <summary>A document that is sent as a request's body, as it is: faults are named by their line in it.</summary>
internal static class SentDocument
{
    /// <param name="longest">One that is longer comes with one character more than that, so that its reader refuses it.</param>
    public static async Task<string> Of(HttpRequest request, int longest, CancellationToken cancel)
    {
        using var reader = new StreamReader(request.Body);
        var buffer = new char[longest + 1];
        return new string(buffer, 0, await reader.ReadBlockAsync(buffer, cancel));
    }
}
