namespace Daxlin.Service.Storage;

/// <summary>One version of a posting layout. By one that is retired, no run is made any more.</summary>
public sealed class LayoutVersion : NamedDocument;
