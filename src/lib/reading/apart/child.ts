import { serve } from './serve';
import { carryOut, type ReadTask } from './tasks';

serve((task) => carryOut(task as ReadTask));
