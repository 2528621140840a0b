namespace Daxlin.Service.Storage;

/// <summary>A document is larger than is taken in.</summary>
public sealed class TooLargeException() : Exception($"A document may have at most {DocumentStore.LargestDocument >> 20} MB.");
