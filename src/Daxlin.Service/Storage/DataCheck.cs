using System.Text.Json;

namespace Daxlin.Service.Storage;

/// <summary>Looks through a data folder for what is missing or altered. It changes nothing, and a service may run meanwhile.</summary>
internal static class DataCheck
{
    public const string Argument = "check-data";

    /// <param name="arguments"><c>--data DIR --store CONNECTION</c>.</param>
    public static async Task<int> Run(string[] arguments)
    {
        try
        {
            var result = await Look(ServiceSettings.Parse(arguments), CancellationToken.None);
            Console.WriteLine(JsonSerializer.Serialize(result, JsonSerializerOptions.Web));
            return 0;
        }
        catch (SettingsException error)
        {
            await Console.Error.WriteLineAsync(error.Message);
            return 2;
        }
    }

    private static async Task<DataChecked> Look(ServiceSettings settings, CancellationToken cancel)
    {
        var folder = new DataFolder(settings.Data, isLookedAtOnly: true);
        var store = Store.Of(settings, folder);
        var (documents, faults) = await store.Look(cancel);
        var found = new List<DataFault>(faults);
        var kept = new DocumentStore(folder);
        foreach (var sha256 in documents)
        {
            if (await kept.FaultOf(sha256, cancel) is var (code, sentence))
                found.Add(new DataFault($"documents/{sha256[..2]}/{sha256}", code, sentence));
        }
        return new DataChecked(folder.Root, documents.Count, found);
    }
}

/// <param name="Data">The folder.</param>
/// <param name="Documents">How many documents the database knows.</param>
internal sealed record DataChecked(string Data, int Documents, IReadOnlyList<DataFault> Faults);

/// <param name="File">Which file of the folder is concerned.</param>
internal sealed record DataFault(string File, string Code, string Sentence);
