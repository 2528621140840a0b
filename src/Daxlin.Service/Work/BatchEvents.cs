namespace Daxlin.Service.Work;

/// <summary>Tells who is listening that a batch has moved on.</summary>
public sealed class BatchEvents : ProgressEvents;
