import { SignatureOutlined } from '@ant-design/icons';
import type { Feature } from '../feature';
import { SignatureDrawer } from './SignatureDrawer';
import { SignatureLayer } from './SignatureLayer';
import { useSignature } from './signatureStore';

export const signature: Feature = {
  id: 'signature',
  name: 'Signature',
  icon: <SignatureOutlined />,
  Drawer: SignatureDrawer,
  Overlay: SignatureLayer,
  busy: () => useSignature.getState().at !== undefined,
  release: () => useSignature.setState({ at: undefined }),
};
