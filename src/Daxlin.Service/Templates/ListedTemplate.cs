namespace Daxlin.Service.Templates;

/// <summary>What a list shows of a template's newest version, without its document.</summary>
internal sealed class ListedTemplate
{
    public required string Name { get; init; }

    public required string Vendor { get; init; }

    public required string Currency { get; init; }

    public required int Version { get; init; }

    public required DateTime SavedAt { get; init; }

    public required string SavedBy { get; init; }

    public required string Note { get; init; }

    public required bool IsRetired { get; init; }
}
