namespace Daxlin.Service.Storage;

/// <summary>A row whose changes are counted, so that an act can be bound to what its person saw.</summary>
public interface IRevised
{
    int Id { get; }

    /// <summary>Counts its changes from 1; its ETag.</summary>
    int Revision { get; }
}
